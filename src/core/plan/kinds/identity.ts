import { oneOf, ref } from './fields';
import { deviceName, kind } from './kind';

/** By what a device can be told: by 802.1X, by its MAC address, or by neither, since it never speaks first or cannot wait. */
export const identities = ['dot1x', 'mac', 'neither'] as const;

export const identity = kind({
  word: 'identity',
  about: 'whether a device answers 802.1X, is known by its MAC address only, or cannot be asked',
  since: 10,
  table: 'identity',
  indexes: { device: ({ device }) => device },
  fields: {
    device: ref('device', 'removed', 'device'),
    by: oneOf('is known by', identities, { column: 'known_by' }),
  },
  title: ({ device }, plan) => `identity of ${deviceName(plan, device)}`,
});
