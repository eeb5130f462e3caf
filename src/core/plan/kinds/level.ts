import { oneOf, ref, whole } from './fields';
import { deviceName, kind } from './kind';
import { bands } from './ssid';

/** How loud one access point is at another, as measured. */
export const level = kind({
  word: 'measured level',
  about: 'how loud one access point is at another in a band, as measured',
  since: 8,
  table: 'level',
  fields: {
    /** Where it was measured. */
    at: ref('device', 'removed', 'heard at', { column: 'at_device_id' }),
    of: ref('device', 'removed', 'heard from', { column: 'of_device_id' }),
    band: oneOf('band', bands, { unit: 'GHz' }),
    dbm: whole('level', -120, 0, { unit: 'dBm' }),
  },
  title: ({ at, of, band }, plan) => `${deviceName(plan, of)} at ${deviceName(plan, at)}, ${band} GHz`,
});
