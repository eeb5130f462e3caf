import { flag, oneOf, rank, ref, text, whole } from './fields';
import { kind } from './kind';

export const stockSorts = ['gateway', 'switch', 'access-point'] as const;

/** Boxes that are there already and should be used. */
export const stock = kind({
  word: 'box at hand',
  about: 'boxes that are there already and should be used: sort, ports, power, where they stand',
  since: 14,
  table: 'stock',
  fields: {
    rank: rank(),
    sort: oneOf('sort', stockSorts, { column: 'stock_sort' }),
    /** As it stands on the case. */
    model: text('model', 80),
    count: whole('number', 1, 1000, { said: 'The number of them', column: 'how_many' }),
    copper: whole('copper ports', 1, 400, { said: 'The number of copper ports' }),
    fibre: whole('fibre ports', 0, 100, { said: 'The number of fibre ports' }),
    /** For all its powered ports together; null: it powers none. */
    poeBudget: whole('PoE budget', 1, 10_000, { said: 'The PoE budget in watts', unit: 'W' }).nullable(),
    vlanAware: flag('understands VLANs'),
    /** Null: wherever they fit. */
    place: ref('place', 'cleared', 'place', { edited: true }).nullable(),
  },
  title: ({ model }) => model,
});
