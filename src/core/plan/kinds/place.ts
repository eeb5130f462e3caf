import { flag, oneOf, rank, text, whole } from './fields';
import { kind } from './kind';

/** `main`: where the lines of the providers end and the gateway stands. */
export const placeSorts = ['main', 'same-building', 'other-building'] as const;

/** A place where things are to be connected, and where a box may stand. */
export const place = kind({
  word: 'place',
  about: 'a place where things are to be connected: how far from the main one, how large, open to strangers',
  since: 14,
  table: 'place',
  uniqueName: true,
  fields: {
    rank: rank(),
    name: text('name', 60, { said: 'The name of the place' }),
    sort: oneOf('where', placeSorts, { column: 'place_sort' }),
    /** Of cable to the main place; null: not measured. */
    metres: whole('cable to the main place', 0, 40_000, { unit: 'm' }).nullable(),
    /** To be covered by wireless; null: not asked. */
    area: whole('area', 1, 1_000_000, { unit: 'm²' }).nullable(),
    strangers: flag('open to strangers'),
  },
  title: ({ name }) => name,
});
