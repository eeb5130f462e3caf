import fc from 'fast-check';
import { newSitePlan } from '../edit';
import {
  Draft,
  type Line,
  type Need,
  type Place,
  type Plan,
  type RecordOf,
  SITE_ID,
  type Stock,
  type TableName,
  type Wish,
  links,
  powers,
  rankBetween,
  siteKinds,
  things,
  wishEnds,
} from '../plan';
import { prefix } from './plans';

/** Briefs for property tests: everything an installer may be told, in any mixture. */

type Without<R> = Omit<R, 'id' | 'rank'>;

const place = (sort: Place['sort']): fc.Arbitrary<Without<Place>> =>
  fc.record({
    name: fc.constantFrom('Cupboard', 'Hall 2', 'Dachgeschoß', 'Кухня', 'Yard', 'Lab'),
    sort: fc.constant(sort),
    metres: fc.option(fc.integer({ min: 0, max: sort === 'other-building' ? 2000 : 120 })),
    area: fc.option(fc.integer({ min: 20, max: 1500 })),
    strangers: fc.boolean(),
  });
const need: fc.Arbitrary<Without<Need> & { readonly at: number }> = fc.record({
  thing: fc.constantFrom(...things),
  name: fc.constantFrom('by the door', 'Line', 'desks'),
  place: fc.constant(null),
  at: fc.nat(3),
  count: fc.oneof(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 0, max: 40 })),
  growth: fc.option(fc.integer({ min: 0, max: 120 })),
  link: fc.constantFrom(...links),
  power: fc.constantFrom(...powers),
  apart: fc.constantFrom('', '', '', 'Line 1', 'Line 2'),
});
const line: fc.Arbitrary<Without<Line>> = fc.record({
  name: fc.constantFrom('fibre', 'cable', 'mobile'),
  addressing: fc.constantFrom('dhcp', 'pppoe'),
  providerVlan: fc.option(fc.integer({ min: 1, max: 4094 })),
  upstream: fc.constantFrom('modem', 'bridged', 'mobile'),
  outside: fc.constantFrom('public', 'private', 'shared', 'unknown'),
  address: fc.constant(null),
  network: fc.constant(null),
  down: fc.option(fc.integer({ min: 1, max: 10_000 })),
  up: fc.option(fc.integer({ min: 1, max: 1000 })),
  noForwards: fc.boolean(),
  delegated: fc.constant(null),
  monitor: fc.constant(null),
  standby: fc.boolean(),
});
const stock: fc.Arbitrary<Without<Stock>> = fc.record({
  sort: fc.constantFrom('gateway', 'switch', 'access-point'),
  model: fc.constantFrom('old one', 'from the shelf'),
  count: fc.integer({ min: 1, max: 3 }),
  copper: fc.integer({ min: 1, max: 48 }),
  fibre: fc.integer({ min: 0, max: 4 }),
  poeBudget: fc.option(fc.integer({ min: 30, max: 800 })),
  vlanAware: fc.boolean(),
  place: fc.constant(null),
});
const wish: fc.Arbitrary<Without<Wish>> = fc.record({
  from: fc.constantFrom(...wishEnds),
  to: fc.constantFrom(...wishEnds),
  decision: fc.constantFrom('allow', 'deny'),
  services: fc.constantFrom<string[]>(
    [],
    [],
    ['stdhttps'],
    ['stdssh', 'stdrtsp'],
    ['stdmodbus'],
    ['stdping'],
  ),
  why: fc.constantFrom('', 'the owner wants it so'),
});
const habits = fc.record({
  numbering: fc.constantFrom('third-octet', 'free'),
  sizing: fc.constantFrom('slash-24', 'need'),
  fixed: fc.constantFrom('outside-pool', 'reservation'),
  management: fc.constantFrom('own-segment', 'default-vlan'),
  gatewayHabit: fc.constantFrom('first', 'last'),
  infrastructureBand: fc.constantFrom(0, 9, 30),
  fixedBand: fc.constantFrom(0, 60, 90),
  separation: fc.constantFrom('vlans', 'vlans', 'separate'),
  routedBy: fc.constantFrom('gateway', 'gateway', 'layer3-switch'),
  backbone: fc.constantFrom('star', 'ring'),
  spare: fc.integer({ min: 0, max: 60 }),
  usualGrowth: fc.integer({ min: 0, max: 100 }),
} as const);

/** Any brief there can be. */
export const anyBrief = fc.record({
  kind: fc.constantFrom(...siteKinds),
  habits,
  main: fc.option(place('main')),
  places: fc.array(fc.oneof(place('same-building'), place('other-building')), { maxLength: 4 }),
  needs: fc.array(need, { minLength: 1, maxLength: 12 }),
  lines: fc.array(line, { maxLength: 3 }),
  stock: fc.array(stock, { maxLength: 3 }),
  wishes: fc.array(wish, { maxLength: 6 }),
});
export type DrawnBrief = typeof anyBrief extends fc.Arbitrary<infer B> ? B : never;

/** A site of which there is nothing but a brief. */
export function briefPlan(drawn: DrawnBrief): Plan {
  const draft = new Draft(newSitePlan({ name: 'Drawn', kind: drawn.kind }, 'new'), 'b');
  draft.update('site', SITE_ID, { ...drawn.habits, space: [prefix('10.0.0.0/12')] });
  let rank: string | null = null;
  const add = <T extends TableName>(table: T, record: object) =>
    draft.insert(table, { rank: (rank = rankBetween(rank, null)), ...record } as unknown as Omit<
      RecordOf<T>,
      'id'
    >).id;
  const named = [...(drawn.main ? [drawn.main] : []), ...drawn.places].map((one) => add('place', one));
  for (const { at, ...one } of drawn.needs) add('need', { ...one, place: named[at] ?? null });
  for (const one of drawn.lines) add('line', one);
  for (const one of drawn.stock) add('stock', one);
  for (const one of drawn.wishes) add('wish', one);
  return draft.plan;
}
