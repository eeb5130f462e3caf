import { day, flag, note, oneOf, rank, ref, refs, someOf, text } from './fields';
import { kind } from './kind';

export const bands = ['2.4', '5', '6'] as const;
export type Band = (typeof bands)[number];

/** From the weakest to the strongest. */
export const securities = [
  'open',
  'owe',
  'wpa-mixed',
  'wpa2-personal',
  'wpa2-wpa3-personal',
  'wpa3-personal',
  'wpa2-enterprise',
  'wpa2-wpa3-enterprise',
  'wpa3-enterprise',
] as const;
export type Security = (typeof securities)[number];

/** What a clock of a network can be told: Mbit/s. */
export const minimumRates = ['1', '2', '5.5', '6', '11', '12', '24'] as const;

/** The most octets a name has on the air (IEEE 802.11-2020 clause 9.4.2.2). */
export const NAME_OCTETS = 32;
/** How long a name is on the air, in octets of UTF-8. */
export const octetsOf = (name: string): number => new TextEncoder().encode(name).length;
export const TOO_LONG = `The network’s name has more than ${NAME_OCTETS} octets in UTF-8, where letters with marks count two or more; shorten it`;

/** A wireless network: a name on the air, and the segment that whoever joins it is in. Its key is never kept. */
export const ssid = kind({
  word: 'wireless network',
  about:
    'a name on the air, the segment it leads to, how it is secured, on which access points; never its key',
  since: 8,
  table: 'ssid',
  fields: {
    name: text('name', NAME_OCTETS, { said: 'The network’s name' }),
    vlan: ref('vlan', 'cleared', 'segment', { edited: true }).nullable(),
    security: oneOf('security', securities),
    bands: someOf('bands', bands),
    /** Do access points keep its clients apart? */
    isolated: flag('keeps its clients apart'),
    /** Is who joins led to a page first? */
    portal: flag('leads to a portal'),
    hidden: flag('hidden'),
    /** When it is on the air; empty for always. */
    schedule: note('on the air', 80),
    minimumRate: oneOf('lowest rate', minimumRates),
    /** Devices on it cannot wait while a channel is listened to for radar: scanners, telephones. */
    cannotWait: flag('its devices cannot wait for a radar check'),
    /** When its key was set, and who keeps it. Never the key. */
    keySet: day('key set').nullable(),
    keyKept: note('key kept', 80, { said: 'Where the key is kept' }),
    /** The access points it is on; none listed: on all. */
    on: refs('device', 'hook', 'access points', 'ssid_on', { edited: true }),
    rank: rank(),
  },
  rules: [
    {
      holds: ({ name }) => octetsOf(name) <= NAME_OCTETS,
      message: TOO_LONG,
      field: 'name',
    },
  ],
  title: ({ name }) => name,
  // Listed at no access point it would be at all of them: with the last that it was listed at, it goes off the air.
  without: {
    tables: ['device'],
    rule: (record, { ids }) => {
      const on = record.on.filter((id) => !ids.has(id));
      if (on.length === record.on.length) return record;
      return on.length > 0 ? { ...record, on } : { ...record, on, bands: [] };
    },
  },
});
