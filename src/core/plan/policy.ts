import { z } from 'zod';
import { idSchema, prefixCodec, text, whole } from './codecs';
import { day } from './gear';

/** The records of who may talk: zones, what passes between them, services by name, and rules above that. */
const ref = idSchema;
const rank = z.string().regex(/^[A-Za-z0-9]{1,60}$/);

/** Things that are treated alike: every VLAN, every uplink and tunnel and the gateway itself belongs to exactly one zone. */
export const zoneSchema = z.strictObject({
  id: idSchema,
  name: text('The zone’s name', 40),
  rank,
  vlans: z.array(ref),
  uplinks: z.array(ref),
  tunnels: z.array(ref).default([]),
  /** The gateway itself: its pages, its DHCP and DNS. */
  gateway: z.boolean(),
  /** May its members talk among themselves, where a box sees them do so? */
  inside: z.enum(['allow', 'deny']),
  /** May the gateway's own pages be opened from here? */
  manages: z.boolean(),
});

export const transports = ['tcp', 'udp', 'icmp', 'ip'] as const;
/** What a service is on the wire: ports of tcp or udp, a type of icmp, or the number of another protocol over IP. */
export const matchSchema = z
  .strictObject({
    protocol: z.enum(transports),
    from: whole('The first port', 0, 65_535),
    to: whole('The last port', 0, 65_535),
  })
  .refine(({ from, to }) => from <= to, {
    message: 'The last port lies before the first; swap them',
    path: ['to'],
  });

/** A service of the installer's own, beside the standard list. */
export const serviceSchema = z.strictObject({
  id: idSchema,
  name: text('The service’s name', 40),
  matches: z.array(matchSchema).min(1, 'A service with no port is nothing; write at least one'),
});

/** What passes from one zone to another where it differs from what is usual. Services are ids, standard ones included. */
export const cellSchema = z.strictObject({
  id: idSchema,
  from: ref,
  to: ref,
  decision: z.enum(['allow', 'deny', 'services']),
  services: z.array(idSchema),
});

/** One of those a rule speaks of. */
export const partySchema = z.union([
  z.strictObject({ zone: ref }),
  z.strictObject({ vlan: ref }),
  z.strictObject({ device: ref }),
  z.strictObject({ prefix: prefixCodec }),
]);

/** A rule above the matrix. Empty lists mean anybody and anything. */
export const ruleSchema = z.strictObject({
  id: idSchema,
  rank,
  from: z.array(partySchema),
  to: z.array(partySchema),
  services: z.array(idSchema),
  action: z.enum(['allow', 'deny']),
  log: z.boolean(),
  enabled: z.boolean(),
  /** The last day it holds; null for good. */
  until: day.nullable(),
  /** The box that enforces it; null for the one that routes the pair. */
  device: ref.nullable(),
  note: text('The note', 120, 0),
});
