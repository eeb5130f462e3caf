import { whole } from './fields';
import { kind } from './kind';
import { FAR } from './spot';

/** A wall that weakens what goes through it. */
export const wall = kind({
  word: 'wall',
  about: 'a wall on a floor, from one point to another in centimetres, and what it takes from a signal',
  since: 8,
  table: 'wall',
  fields: {
    floor: whole('floor', -9, 200),
    fromX: whole('from right', -FAR, FAR, { unit: 'cm' }),
    fromY: whole('from down', -FAR, FAR, { unit: 'cm' }),
    toX: whole('to right', -FAR, FAR, { unit: 'cm' }),
    toY: whole('to down', -FAR, FAR, { unit: 'cm' }),
    loss: whole('loss', 0, 60, { unit: 'dB' }),
  },
  title: ({ floor, loss }) => `wall on floor ${floor}, ${loss} dB`,
});
