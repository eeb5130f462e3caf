import fc from 'fast-check';
import Papa from 'papaparse';
import { findInPlan } from '../find';
import { build, damagedSite, done, emptySite } from '../testing/plans';
import { subnetOf, vlansOf, boxOf } from '../plan';
import { rulesOf } from '../model/policy';
import { deviceNamed, put } from '../testing/gear';
import { soundPolicy } from '../testing/policy';
import { armed, csvCell, csvText, defused } from './csv';
import { ruleScheduleCsv, ruleScheduleOf } from './rule-schedule';
import { writePlanFile } from './plan-file';
import { scheduleCsv, scheduleOf } from './schedule';
import { runs } from '../testing/runs';

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
          expect(data.slice(0, -1)).toEqual(rows.map((row) => row.map(defused)));
        },
      ),
    );
  });
});

test('a plan file does not depend on how its records were made', () => {
  const plan = soundPolicy();
  const desk = deviceNamed(plan, 'desk')!;
  const turned = Object.fromEntries(Object.entries(desk).reverse()) as unknown as typeof desk;
  expect(writePlanFile(put(plan, 'device', turned, {}))).toBe(writePlanFile(plan));
});

describe('a cell', () => {
  test.each([
    ['=1+1', "'=1+1"],
    ['+1', "'+1"],
    ['-1', "'-1"],
    ['@SUM(A1)', "'@SUM(A1)"],
    ['  =1', "'  =1"],
    ['\u00a0=1', "'\u00a0=1"],
    ['\ufeff=1', "'\ufeff=1"],
    ['\uff1d1', "'\uff1d1"],
    [';=1', ";'=1"],
    ['desk; =cmd', "desk; '=cmd"],
    ['plain; text = fine', 'plain; text = fine'],
    ['a-b', 'a-b'],
    ["'=1", "''=1"],
    ["'n Abend", "'n Abend"],
  ])('%j is no formula in a spreadsheet', (value, safe) => {
    expect(defused(value)).toBe(safe);
    // As one that separates by semicolons reads it, no part begins a formula either.
    for (const part of csvCell(value).replaceAll('"', '').split(';'))
      expect(part.trim()).not.toMatch(/^[=+\-@\uff1d]/);
  });
  test('comes back as it went, a reference designation such as -K1 or =F1+A2 too (IEC 81346-1)', () => {
    const piece = fc.constantFrom("'", ';', '=', '-', '+', ' ', '\t', '"', 'K1', '\u00a0', '\uff1d');
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 8 }), (pieces) => {
        const text = pieces.join('');
        expect(armed(defused(text))).toBe(text);
      }),
      { numRuns: 3000 },
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
      { numRuns: runs(60), seed: 8 },
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
    ['.10.24', '10.20.10.24 yard-cam'],
    ['0000.5e00.532b', '10.20.10.24 yard-cam'],
    ['53:2b', '10.20.10.24 yard-cam'],
    ['YARD', '10.20.10.24 yard-cam'],
    ['mast', '10.20.10.24 yard-cam'],
    ['10', '10 CM Cameras'],
    ['cm', '10 CM Cameras'],
    ['10.20.10.0/25', '10 CM Cameras'],
    ['10.20.10.200', '10 CM Cameras'],
  ])('%s', (query, title) => expect(findInPlan(plan, query)[0]?.title).toBe(title));
  test.each(['', '192.0.2.1', '.11.24', '.300', 'nothing like it', '00:00:5E:00:53:FF'])(
    '%p finds nothing',
    (query) => expect(findInPlan(plan, query)).toEqual([]),
  );
});

describe('the rule schedule', () => {
  const sound = soundPolicy();
  test('lists rules, what forwards open, what the matrix allows, and ends by denying', () => {
    const lines = ruleScheduleOf(sound, '2026-05-04');
    expect(lines[0]).toMatchObject({
      source: 'rule',
      action: 'allow',
      from: 'till',
      to: 'Devices',
      services: 'camera pictures',
      ports: 'tcp 554',
      boxes: 'whoever routes the pair',
    });
    expect(lines.find(({ source }) => source === 'forward')).toMatchObject({
      from: 'fibre: anybody',
      to: 'desk',
      services: 'outside tcp 443',
      ports: 'tcp 443',
      boxes: 'gw-1',
    });
    expect(lines.find(({ from, to }) => from === 'Staff' && to === 'Devices')).toMatchObject({
      source: 'matrix',
      services: 'web pages, printing',
      ports: 'tcp 80, tcp 443, tcp 515, tcp 631, tcp 9100',
    });
    expect(lines.some(({ source }) => source === 'answer')).toBe(false);
    expect(lines.at(-1)).toMatchObject({ action: 'deny', from: 'anybody', to: 'anybody' });
  });
  test('a box that looks at each packet by itself gets the lines that let answers back', () => {
    const box = boxOf(sound, deviceNamed(sound, 'gw-1').id)!;
    const lines = ruleScheduleOf(put(sound, 'box', box, { filter: 'stateless' }), '2026-05-04');
    expect(lines.find(({ source, to }) => source === 'answer' && to === 'Staff')).toMatchObject({
      from: 'Devices',
      ports: 'tcp from 80, tcp from 443, tcp from 515, tcp from 631, tcp from 9100',
      boxes: 'gw-1',
    });
  });
  test('as CSV has one row for each line, and no row for a rule that ran out', () => {
    const [rule] = rulesOf(sound);
    const rows = ruleScheduleCsv(sound, '2026-05-04').trim().split('\r\n');
    expect(rows).toHaveLength(ruleScheduleOf(sound, '2026-05-04').length + 1);
    expect(rows[1]).toContain('till,Devices,camera pictures,tcp 554');
    const old = put(sound, 'rule', rule!, { until: '2026-05-03' });
    expect(ruleScheduleCsv(old, '2026-05-04')).not.toContain('the till shows the door');
  });
});
