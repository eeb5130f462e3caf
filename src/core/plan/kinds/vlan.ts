import { code, flag, oneOf, parts, rank, ref, text, whole } from './fields';
import { kind } from './kind';

/** What groups of things are for. */
export const groupPurposes = [
  'management',
  'staff',
  'guest',
  'iot',
  'cameras',
  'voice',
  'servers',
  'control-cell',
  'supervisory',
  'building',
  'exchange',
] as const;
export const purposes = [...groupPurposes, 'transit', 'parking'] as const;
export type Purpose = (typeof purposes)[number];

/** A VLAN: with its subnets, what people call a segment. */
export const vlan = kind({
  word: 'segment',
  about:
    'VLAN id, code, name, colour, purpose, devices now, growth in per cent, people who come and go, rank',
  since: 1,
  table: 'vlan',
  fields: {
    lan: ref('lan', 'removed', 'LAN'),
    vid: whole('VLAN id', 1, 4094),
    code: code(
      'code',
      3,
      /^[A-Z0-9]{2,3}$/,
      'CM',
      'The code needs two or three capital letters or digits, like CM',
    ),
    name: text('name', 60, { said: 'The segment’s name' }),
    colour: code(
      'colour',
      7,
      /^#[0-9a-f]{6}$/,
      '#e2a21b',
      'The colour needs six hexadecimal digits after #, like #e2a21b',
    ),
    purpose: oneOf('purpose', purposes),
    /** May it reach the Internet? */
    internet: flag('Internet'),
    devices: whole('devices now', 0, 1_000_000, { said: 'Devices now' }),
    growth: whole('growth', 0, 1000, { said: 'Growth', unit: '%' }),
    /** People who come and go: most present at once, arrivals per hour, hours open per day. */
    transient: parts('people who come and go', {
      present: whole('present', 0, 1_000_000, { said: 'Most present at once', column: 'transient_present' }),
      arrivalsPerHour: whole('arrivals per hour', 0, 1_000_000, {
        said: 'Arrivals per hour',
        column: 'transient_arrivals',
      }),
      openHours: whole('hours open per day', 1, 24, {
        said: 'Hours open per day',
        column: 'transient_hours',
      }),
    }).nullable(),
    rank: rank(),
  },
  title: ({ name, vid }) => `${name} (VLAN ${vid})`,
});
