import { flag, oneOf, ref, whole } from './fields';
import { deviceName, kind } from './kind';
import { bands } from './ssid';

export const widths = ['20', '40', '80', '160', '320'] as const;
export type Width = (typeof widths)[number];

/** A radio of an access point. */
export const radio = kind({
  word: 'radio',
  about: 'a radio of an access point: band, channel, width, power; one to a band',
  since: 8,
  table: 'radio',
  bucket: 'device',
  fields: {
    device: ref('device', 'removed', 'device'),
    band: oneOf('band', bands, { unit: 'GHz' }),
    enabled: flag('on'),
    /** The primary channel of 20 MHz; null: the radio chooses for itself. */
    channel: whole('channel', 1, 233).nullable(),
    width: oneOf('width', widths, { unit: 'MHz' }),
    /** Radiated (EIRP); null: as much as is allowed. */
    power: whole('power', 0, 36, { unit: 'dBm' }).nullable(),
    /** Between two beacons, in time units of 1024 µs. */
    interval: whole('beacon interval', 20, 1000, { unit: 'TU', column: 'beacon_interval' }),
    /** The proposal of channels leaves it as it is. */
    kept: flag('channel kept'),
  },
  refused: ({ id, device, band }, plan) =>
    ([...plan.radio!.group(device).values()] as { readonly id: string; readonly band: string }[]).some(
      (other) => other.id !== id && other.band === band,
    )
      ? { field: 'band', message: `${deviceName(plan, device)} has a radio at ${band} GHz already.` }
      : null,
  title: ({ device, band }, plan) => `${deviceName(plan, device)} ${band} GHz`,
});
