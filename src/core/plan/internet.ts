import { z } from 'zod';
import { addressCodec, idSchema, prefixCodec, text, whole } from './codecs';

/**
 * The records of the Internet side: what a gateway's uplinks are like, what they let in, and what end devices listen
 * on. No secret has a field here: how an uplink logs in is kept where the customer keeps it.
 */
const ref = idSchema;

export const addressings = ['dhcp', 'static', 'pppoe'] as const;
export const upstreams = ['modem', 'bridged', 'routing', 'satellite', 'mobile'] as const;
export const passings = ['nothing', 'listed', 'everything'] as const;
export const outsides = ['public', 'private', 'shared', 'unknown'] as const;
export const protocols = ['tcp', 'udp', 'both'] as const;

/** A way out of a gateway. */
export const uplinkSchema = z.strictObject({
  id: idSchema,
  device: ref,
  /** The segment of this site its outside stands in: a router behind a router. Null where it faces a provider. */
  segment: ref.nullable().default(null),
  /** The port that faces the provider; null while nobody recorded it. */
  port: ref.nullable(),
  name: text('The uplink’s name', 40),
  addressing: z.enum(addressings),
  /** The provider's VLAN on the wire: a name space of its own, no segment of this site. Null for none. */
  providerVlan: whole('The provider’s VLAN id', 1, 4094).nullable(),
  /** What stands between the gateway and the provider. */
  upstream: z.enum(upstreams),
  /** What a routing box upstream passes on to this gateway. `listed`: the ports of the forwards recorded here. */
  passes: z.enum(passings),
  /** What is known of the outside address when the address itself is not recorded. */
  outside: z.enum(outsides),
  address: addressCodec.nullable(),
  /** The network between the gateway and what stands upstream. */
  network: prefixCodec.nullable(),
  /** Largest IP packet in bytes where it differs from what the addressing gives; null for that. */
  mtu: whole('The MTU in bytes', 576, 9216).nullable(),
  /** Megabits per second, as ordered. */
  down: whole('The speed down in Mbit/s', 1, 800_000).nullable(),
  up: whole('The speed up in Mbit/s', 1, 800_000).nullable(),
  /** Gigabytes a month; null without a limit. */
  cap: whole('The data cap in GB a month', 1, 1_000_000).nullable(),
  /** The provider, or this port of the gateway, lets no forward in. */
  noForwards: z.boolean(),
  enabled: z.boolean(),
  /** The IPv6 prefix the provider delegates. */
  delegated: prefixCodec.nullable(),
  /** 1 is used first; uplinks of one tier share the traffic by weight, a later tier waits for the earlier to fail. */
  tier: whole('The tier', 1, 9),
  weight: whole('The weight', 1, 256),
  /** What is asked over this uplink alone to tell whether it works; null for nothing. */
  monitor: addressCodec.nullable(),
  /** Seconds between two questions, and how many in a row decide. */
  monitorEvery: whole('The seconds between two pings', 1, 3600),
  lossesDown: whole('The lost pings before it counts as down', 1, 100),
  repliesUp: whole('The answered pings before it counts as up', 1, 100),
  /** The name in the DNS that follows its address; empty for none. */
  dynamicName: text('The dynamic name', 120, 0),
  /** The one device that keeps the name up to date. */
  updater: ref.nullable(),
});

const port = (what: string) => whole(what, 1, 65_535);

/** A port forward: destination NAT, and the opening in the filter that goes with it. */
export const forwardSchema = z
  .strictObject({
    id: idSchema,
    uplink: ref,
    protocol: z.enum(protocols),
    from: port('The first outside port'),
    to: port('The last outside port'),
    /** The network card inside that gets it. */
    target: ref,
    /** The inside port that the first outside port becomes; the others follow in order. */
    inside: port('The inside port'),
    /** Who may come; empty for anybody. */
    sources: z.array(prefixCodec),
    /** Does it work from inside too, by the outside address? */
    hairpin: z.boolean(),
    enabled: z.boolean(),
    note: text('The note', 120, 0),
  })
  .refine(({ from, to }) => from <= to, {
    message: 'The last outside port lies before the first; swap them',
    path: ['to'],
  })
  .refine(({ from, to, inside }) => inside + (to - from) <= 65_535, {
    message: 'The inside ports would end after 65535; begin lower',
    path: ['inside'],
  });

/** A service an end device really listens on. */
export const offerSchema = z.strictObject({
  id: idSchema,
  device: ref,
  protocol: z.enum(protocols),
  port: port('The port of the service'),
  name: text('The service’s name', 40, 0),
});
