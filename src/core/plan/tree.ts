import { z } from 'zod';
import { idSchema, text, whole } from './codecs';
import { spanningTrees } from './gear';

/** The records of spanning trees and rings. */
const ref = idSchema;

/** How a box takes part in spanning trees, where it differs from what its model does as it comes. One to a device. */
export const bridgeSchema = z.strictObject({
  id: idSchema,
  device: ref,
  mode: z.enum(spanningTrees),
  /** Multiples of 4096 (IEEE 802.1Q-2022 clause 13.26.3); what is between is a mistake that can be recorded. */
  priority: whole('The bridge priority', 0, 65_535),
  costScale: z.enum(['long', 'short']),
  /** Seconds. */
  hello: whole('The hello time', 1, 10),
  maxAge: whole('The max age', 6, 40),
  forwardDelay: whole('The forward delay', 4, 30),
  maxHops: whole('The max hops', 1, 255),
  /** The MST region: name and revision; the map of VLANs is in the instances. */
  region: text('The region’s name', 32, 0),
  revision: whole('The revision', 0, 65_535),
  /** Is it the one that opens its ring? */
  ringManager: z.boolean(),
  /** The two ports that are part of a ring; spanning trees leave them alone. */
  ringPorts: z.array(ref).max(2, 'A ring has two ports at each box; name two'),
  /** Milliseconds the ring needs to close a gap; null when nobody looked it up. */
  recovery: whole('The recovery time of the ring in milliseconds', 1, 60_000).nullable(),
});

/** VLAN ids as ranges: 10-20,99. Rising, without overlaps, as short as can be. */
const rangesText = /^$|^\d{1,4}(-\d{1,4})?(,\d{1,4}(-\d{1,4})?)*$/;

/** A tree of its own at a box: an MST instance with its VLANs, or in RSTP per VLAN that of one VLAN. */
export const instanceSchema = z.strictObject({
  id: idSchema,
  device: ref,
  /** The instance’s number, or the VLAN id. */
  number: whole('The instance', 1, 4094),
  vids: z
    .string()
    .max(20_000, 'The list of VLAN ids is too long')
    .regex(rangesText, 'VLAN ids need the form 10-20,99'),
  priority: whole('The bridge priority', 0, 65_535),
});

export const guards = ['none', 'root', 'bpdu', 'filter'] as const;

/** A port in a tree, where it differs from a port as it comes. Instance 0 is the common tree. */
export const treePortSchema = z.strictObject({
  id: idSchema,
  port: ref,
  instance: whole('The instance', 0, 4094),
  /** Null: by the speed of the link. */
  cost: whole('The path cost', 1, 200_000_000).nullable(),
  /** Multiples of 16. */
  priority: whole('The port priority', 0, 255),
  /** Forwards at once, as only end devices are expected there. Counts in the common tree. */
  edge: z.boolean(),
  guard: z.enum(guards),
});
