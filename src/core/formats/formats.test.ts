import fc from 'fast-check';
import Papa from 'papaparse';
import { findInPlan } from '../find/find';
import { build, damagedSite, done, emptySite } from '../testing/plans';
import { subnetOf, vlansOf } from '../plan/view';
import { csvText } from './csv';
import { scheduleCsv, scheduleOf } from './schedule';

describe('CSV', () => {
  test('reads back with another parser, formulas defused', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string(), { minLength: 2, maxLength: 2 }), { minLength: 1 }),
        (rows) => {
          const { data } = Papa.parse<string[]>(csvText(rows), {
            skipEmptyLines: false,
            newline: '\r\n',
            delimiter: ',',
          });
          expect(data.slice(0, -1)).toEqual(
            rows.map((row) => row.map((cell) => (/^[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell))),
          );
        },
      ),
    );
  });
});

describe('the schedule', () => {
  test('has one row for each address, pool and exclusion', () => {
    fc.assert(
      fc.property(damagedSite, (site) => {
        const plan = build(site);
        const { data } = Papa.parse<string[]>(scheduleCsv(plan), { newline: '\r\n', skipEmptyLines: true });
        const blocks = scheduleOf(plan);
        const empty = blocks.filter(
          (block) => block.hosts.length + block.pools.length + block.exclusions.length === 0,
        ).length;
        expect(data.length - 1).toBe(plan.address.size + plan.pool.size + plan.exclusion.size + empty);
        expect(new Set(data.map((row) => row.length))).toEqual(new Set([14]));
      }),
      { numRuns: 60, seed: 8 },
    );
  });
});

describe('find', () => {
  let plan = done(emptySite(), 'addSegment', { purpose: 'cameras' });
  const subnet = subnetOf(plan, vlansOf(plan)[0]!.id, 4)!;
  plan = done(plan, 'addHost', {
    subnet: subnet.id,
    name: 'yard-cam',
    address: '10.20.10.24',
    mac: '00:00:5E:00:53:2B',
    note: 'north mast',
  });
  test.each([
    ['10.20.10.24', '10.20.10.24 yard-cam'],
    ['.24', '10.20.10.24 yard-cam'],
    ['0000.5e00.532b', '10.20.10.24 yard-cam'],
    ['53:2b', '10.20.10.24 yard-cam'],
    ['YARD', '10.20.10.24 yard-cam'],
    ['mast', '10.20.10.24 yard-cam'],
    ['10', '10 CM Cameras'],
    ['cm', '10 CM Cameras'],
    ['10.20.10.0/25', '10 CM Cameras'],
    ['10.20.10.200', '10 CM Cameras'],
  ])('%s', (query, title) => expect(findInPlan(plan, query)[0]?.title).toBe(title));
  test.each(['', '192.0.2.1', 'nothing like it', '00:00:5E:00:53:FF'])('%p finds nothing', (query) =>
    expect(findInPlan(plan, query)).toEqual([]),
  );
});
