import { flag, ref, whole } from './fields';
import { deviceName, kind } from './kind';

/** How far from the corner of a site anything may be, in centimetres. */
export const FAR = 100_000;

/** Where an access point hangs. */
export const spot = kind({
  word: 'mounting place',
  about: 'where a device hangs: floor, and centimetres right and down from a corner; one to a device',
  since: 8,
  table: 'spot',
  indexes: { device: ({ device }) => device },
  fields: {
    device: ref('device', 'removed', 'device'),
    floor: whole('floor', -9, 200),
    x: whole('right', -FAR, FAR, { unit: 'cm' }),
    y: whole('down', -FAR, FAR, { unit: 'cm' }),
    outdoors: flag('outdoors'),
  },
  title: ({ device }, plan) => `place of ${deviceName(plan, device)}`,
});
