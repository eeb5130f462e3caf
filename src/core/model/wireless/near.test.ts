import fc from 'fast-check';
import { type AnyRecord, type Plan, type TableName, bands, withRecord } from '../../plan';
import { afresh, emptySite } from '../../testing/plans';
import { runs } from '../../testing/runs';
import { accessPoints } from './air';
import { betterChannel } from './better';
import { clashesOf } from './clashes';
import { nearTo } from './near';

/** Law: who hears whom, who clashes and what would be better, made up for with what changed, is what it is from nothing. */

const COUNT = 7;
const put = (plan: Plan, table: TableName, record: AnyRecord): Plan =>
  withRecord(plan, table, record.id, record);
const radio = (i: number, band: '2.4' | '5', channel: number | null, more: object = {}) => ({
  id: `r${band}-${i}`,
  device: `ap${i}`,
  band,
  channel,
  width: '20' as const,
  enabled: true,
  power: 20,
  interval: 100,
  kept: false,
  ...more,
});
const start = (() => {
  let plan = emptySite();
  for (let i = 0; i < COUNT; i++) {
    const device = `ap${i}`;
    plan = put(plan, 'device', { id: device, name: device, kind: 'access-point', firewall: 'unknown' });
    plan = put(plan, 'spot', { id: `s${i}`, device, floor: 0, x: i * 700, y: 0, outdoors: false });
    plan = put(plan, 'radio', radio(i, '2.4', [1, 6, 11][i % 3]!));
    plan = put(plan, 'radio', radio(i, '5', 36 + 4 * (i % 4)));
  }
  return plan;
})();

const device = fc.nat(COUNT - 1);
const band = fc.constantFrom('2.4' as const, '5' as const);
const metres = fc.integer({ min: -60, max: 60 }).map((n) => n * 100);
/** Every record that the air hangs on, changed, added, or gone. */
const edit: fc.Arbitrary<(plan: Plan) => Plan> = fc.oneof(
  fc.tuple(device, band, fc.constantFrom(1, 3, 6, 11, 36, 44, 100, null), fc.boolean(), fc.nat(30)).map(
    ([i, of, channel, enabled, power]) =>
      (plan: Plan) =>
        put(plan, 'radio', radio(i, of, channel, { enabled, power })),
  ),
  fc.tuple(device, band).map(
    ([i, of]) =>
      (plan: Plan) =>
        withRecord(plan, 'radio', `r${of}-${i}`, null),
  ),
  fc.tuple(device, metres, metres, fc.nat(1), fc.boolean()).map(
    ([i, x, y, floor, outdoors]) =>
      (plan: Plan) =>
        put(plan, 'spot', { id: `s${i}`, device: `ap${i}`, floor, x, y, outdoors }),
  ),
  device.map((i) => (plan: Plan) => withRecord(plan, 'spot', `s${i}`, null)),
  fc.tuple(device, device, band, fc.integer({ min: -95, max: -40 })).map(
    ([at, of, on, dbm]) =>
      (plan: Plan) =>
        put(plan, 'level', { id: `l${at}${of}${on}`, at: `ap${at}`, of: `ap${of}`, band: on, dbm }),
  ),
  fc.tuple(device, device, band).map(
    ([at, of, on]) =>
      (plan: Plan) =>
        withRecord(plan, 'level', `l${at}${of}${on}`, null),
  ),
  fc.tuple(metres, fc.nat(25)).map(
    ([x, loss]) =>
      (plan: Plan) =>
        put(plan, 'wall', { id: 'w', floor: 0, fromX: x, fromY: -900, toX: x, toY: 900, loss }),
  ),
  fc.tuple(device, fc.constantFrom(1, 6, 11), fc.integer({ min: -90, max: -50 })).map(
    ([i, channel, dbm]) =>
      (plan: Plan) =>
        put(plan, 'foreignSsid', {
          id: `f${i}`,
          at: `ap${i}`,
          name: '',
          band: '2.4',
          channel,
          width: '20',
          dbm,
          heard: null,
        } as never),
  ),
);

const airOf = (plan: Plan) => ({
  near: accessPoints(plan).map(({ id }) => bands.map((on) => nearTo(plan, id, on))),
  clashes: [...plan.radio.values()].map((one) => clashesOf(plan, one)),
  better: [...plan.radio.values()].map((one) => betterChannel(plan, one)),
});

test('what few have changed is made up for with those few', () => {
  const seen = { near: 0, clashes: 0, better: 0 };
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 8 }), (edits) => {
      let plan = start;
      airOf(plan);
      for (const one of edits) {
        plan = one(plan);
        const now = airOf(plan);
        expect(now).toEqual(airOf(afresh(plan)));
        seen.near += now.near.flat(2).length;
        seen.clashes += now.clashes.flat().length;
        seen.better += now.better.filter((found) => found !== null).length;
      }
    }),
    { numRuns: runs(150), seed: 5 },
  );
  for (const count of Object.values(seen)) expect(count).toBeGreaterThan(1000);
});
