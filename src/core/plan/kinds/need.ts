import { note, oneOf, rank, ref, text, whole } from './fields';
import { kind } from './kind';

/** What customers name when they are asked what has to work. */
export const things = [
  'workstation',
  'laptop',
  'telephone',
  'guest',
  'printer',
  'screen',
  'appliance',
  'server',
  'camera',
  'recorder',
  'sensor',
  'controller',
  'safety-controller',
  'operator-panel',
  'drive',
  'control-room',
  'exchange-server',
  'scanner',
] as const;
export const links = ['wired', 'wireless'] as const;
export const powers = ['usual', 'yes', 'no'] as const;

/** What the brief asks for: so many things of a kind, somewhere. */
export const need = kind({
  word: 'need',
  about: 'what the brief asks for: so many things of a kind at a place, how they are connected and powered',
  since: 14,
  table: 'need',
  fields: {
    rank: rank(),
    thing: oneOf('kind of thing', things),
    /** What the customer calls them. */
    name: text('name', 60, { said: 'What they are called' }),
    /** Null: the main place. */
    place: ref('place', 'cleared', 'place', { edited: true }).nullable(),
    count: whole('number now', 0, 100_000, { said: 'The number now', column: 'how_many' }),
    /** Null: as is usual at the site. */
    growth: whole('growth', 0, 1000, { said: 'Growth', unit: '%' }).nullable(),
    link: oneOf('connected', links),
    power: oneOf('power over the network', powers),
    /** A group of their own by name, like the machine they belong to; empty: with all of their kind. */
    apart: note('group of their own', 40),
  },
  title: ({ name }) => name,
});
