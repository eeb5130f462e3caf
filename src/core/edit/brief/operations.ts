import * as z from 'zod';
import {
  type Draft,
  type Need,
  type Place,
  type TableName,
  kinds,
  operation,
  rankBetween,
  recordIn,
  recordTitle,
  removeRecord,
  namedSo,
  requireOwnName,
} from '../../plan';
import { thingWords } from './thing-words';

/** The brief: places, what has to be connected, Internet connections, boxes at hand, rules the customer gives. */

const needs = kinds.need.fields;
const places = kinds.place.fields;
const lines = kinds.line.fields;
const stocks = kinds.stock.fields;
const wishes = kinds.wish.fields;

/** Lists of a brief, each in the order the user gives. */
const listed = ['place', 'need', 'line', 'stock', 'wish'] as const;
type Listed = (typeof listed)[number];

const lastRank = (draft: Draft, table: Listed): string => {
  const ranks = [...draft.plan[table].values()].map(({ rank }) => rank).sort();
  return rankBetween(ranks.at(-1) ?? null, null);
};

const insertPlace = (draft: Draft, fields: Pick<Place, 'name'> & Partial<Place>): Place =>
  draft.insert('place', {
    rank: lastRank(draft, 'place'),
    sort: 'same-building',
    metres: null,
    area: null,
    strangers: false,
    ...fields,
  });

export const addPlace = operation(
  'addPlace',
  z.strictObject({ name: places.name, sort: places.sort.optional() }),
  (draft, { name, sort }) => {
    requireOwnName(draft.plan, 'place', name);
    const hasMain = [...draft.plan.place.values()].some((place) => place.sort === 'main');
    const place = insertPlace(draft, { name, sort: sort ?? (hasMain ? 'same-building' : 'main') });
    return `Place ${place.name} added`;
  },
);

const needInput = z.strictObject({
  thing: needs.thing,
  count: needs.count,
  name: z.string().trim().max(60).default(''),
  /** Where, by name; a place that is not there yet is made. */
  place: z.string().trim().max(60).default(''),
  growth: needs.growth.default(null),
  link: needs.link.default('wired'),
  power: needs.power.default('usual'),
  apart: needs.apart.default(''),
});

function insertNeed(draft: Draft, { place: where, name, ...fields }: z.output<typeof needInput>): Need {
  const place =
    where === '' ? null : (namedSo(draft.plan, 'place', where) ?? insertPlace(draft, { name: where })).id;
  return draft.insert('need', {
    rank: lastRank(draft, 'need'),
    ...fields,
    name: name || thingWords[fields.thing],
    place,
  });
}

export const addNeed = operation('addNeed', needInput, (draft, input) => {
  const { name, count } = insertNeed(draft, input);
  return `${count} × ${name} in the brief`;
});

/** Rows of a table of devices, as they were read and shown. */
export const importNeeds = operation(
  'importNeeds',
  z.strictObject({ rows: z.array(needInput).min(1, 'No row is left to take.').max(2000) }),
  (draft, { rows }) => {
    for (const row of rows) insertNeed(draft, row);
    return rows.length === 1 ? 'A row taken into the brief' : `${rows.length} rows taken into the brief`;
  },
);

export const addLine = operation(
  'addLine',
  z.strictObject({ name: lines.name, outside: lines.outside.default('unknown') }),
  (draft, { name, outside }) => {
    requireOwnName(draft.plan, 'line', name);
    draft.insert('line', {
      rank: lastRank(draft, 'line'),
      name,
      addressing: 'dhcp',
      providerVlan: null,
      upstream: 'modem',
      outside,
      address: null,
      network: null,
      down: null,
      up: null,
      noForwards: false,
      delegated: null,
      monitor: null,
      standby: false,
    });
    return `Internet connection ${name} in the brief`;
  },
);

export const addStock = operation(
  'addStock',
  z.strictObject({
    sort: stocks.sort,
    model: stocks.model,
    count: stocks.count.default(1),
    copper: stocks.copper,
    fibre: stocks.fibre.default(0),
    poeBudget: stocks.poeBudget.default(null),
  }),
  (draft, input) => {
    draft.insert('stock', { rank: lastRank(draft, 'stock'), ...input, vlanAware: true, place: null });
    return `${input.count} × ${input.model} at hand`;
  },
);

export const addWish = operation(
  'addWish',
  z.strictObject({
    from: wishes.from,
    to: wishes.to,
    decision: wishes.decision,
    services: wishes.services.default([]),
    why: wishes.why.default(''),
  }),
  (draft, input) => {
    draft.insert('wish', { rank: lastRank(draft, 'wish'), ...input });
    return `Wish: ${input.from} ${input.decision === 'allow' ? 'may' : 'may not'} reach ${input.to}`;
  },
);

/** What a wish is about, when it is not everything. */
export const setWishServices = operation(
  'setWishServices',
  z.strictObject({ wish: z.string(), services: wishes.services }),
  (draft, { wish: id, services }) => {
    draft.need('wish', id);
    draft.update('wish', id, { services: [...new Set(services)] });
    return services.length === 0 ? 'The wish is about everything' : 'The wish is about some services';
  },
);

export const removeFromBrief = operation(
  'removeFromBrief',
  z.strictObject({ table: z.enum(listed), ids: z.array(z.string()).min(1).max(2000) }),
  (draft, { table, ids }) => {
    const titles = ids.map((id) => {
      draft.need(table, id);
      return recordTitle(draft.plan, table, recordIn(draft.plan, table as TableName, id)!);
    });
    for (const id of ids) removeRecord(draft, { table, id });
    return titles.length === 1
      ? `${titles[0]} taken out of the brief`
      : `${titles.length} taken out of the brief`;
  },
);
