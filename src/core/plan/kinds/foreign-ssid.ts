import { note, oneOf, ref, whole } from './fields';
import { kind } from './kind';
import { widths } from './radio';
import { bands } from './ssid';

/** A network of somebody else that is heard on the site. */
export const foreignSsid = kind({
  word: 'foreign network',
  about: 'a network of somebody else that is heard: channel, width, level, and at which access point',
  since: 8,
  table: 'foreign_ssid',
  fields: {
    name: note('name', 32),
    /** Null: heard all over the site. */
    at: ref('device', 'removed', 'heard at', { column: 'at_device_id' }).nullable(),
    band: oneOf('band', bands, { unit: 'GHz' }),
    channel: whole('channel', 1, 233),
    width: oneOf('width', widths, { unit: 'MHz' }),
    dbm: whole('level', -120, 0, { unit: 'dBm' }),
  },
  title: ({ name, channel }) => `${name || 'a network without a name'} on channel ${channel}`,
});
