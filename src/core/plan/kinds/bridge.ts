import { spanningTrees } from './box';
import { flag, note, oneOf, ref, refs, whole } from './fields';
import { deviceName, kind } from './kind';

/** How a box takes part in spanning trees, where it differs from what its model does as it comes. One to a device. */
export const bridge = kind({
  word: 'spanning tree setting',
  about: 'how a box takes part in spanning trees or a ring, where it differs from a box as it comes',
  since: 5,
  table: 'bridge',
  indexes: { device: ({ device }) => device },
  fields: {
    device: ref('device', 'removed', 'device'),
    mode: oneOf('mode', spanningTrees, { column: 'tree_mode' }),
    /** Multiples of 4096 (IEEE 802.1Q-2022 clause 13.26.3); what is between is a mistake that can be recorded. */
    priority: whole('priority', 0, 65_535, { said: 'The bridge priority' }),
    costScale: oneOf('path costs', ['long', 'short']),
    hello: whole('hello time (s)', 1, 10, { said: 'The hello time', unit: 's' }),
    maxAge: whole('max age (s)', 6, 40, { said: 'The max age', unit: 's' }),
    forwardDelay: whole('forward delay (s)', 4, 30, { said: 'The forward delay', unit: 's' }),
    maxHops: whole('max hops', 1, 255),
    /** The MST region: name and revision; the map of VLANs is in the instances. */
    region: note('region', 32, { said: 'The region’s name' }),
    revision: whole('revision', 0, 65_535),
    /** Is it the one that opens its ring? */
    ringManager: flag('ring manager'),
    /** The two ports that are part of a ring; spanning trees leave them alone. */
    ringPorts: refs('port', 'dropped', 'ring ports', 'bridge_ring_port').max(
      2,
      'A ring has two ports at each box; name two',
    ),
    /** What the ring needs to close a gap; null when nobody looked it up. */
    recovery: whole('recovery (ms)', 1, 60_000, {
      said: 'The recovery time of the ring in milliseconds',
      unit: 'ms',
      column: 'recovery_ms',
    }).nullable(),
  },
  title: ({ device }, plan) => `spanning tree of ${deviceName(plan, device)}`,
});
