import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import Papa from 'papaparse';
import { readPlanFile, tablesOf } from '../core/formats';
import { type Plan, siteOf, withRecord } from '../core/plan';
import { deviceNamed } from '../core/testing/gear';
import { drawPlan, withEveryKind } from '../core/testing/kinds';
import { everyFile } from '../server/documents/every-file';
import { workbookOf } from '../server/documents/workbook';

/** The workbook as another reader of spreadsheets takes it, and the drawings as a reader of XML does. */

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-workbook-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

const TODAY = '2026-12-01';
const creamery = readPlanFile(fs.readFileSync('demo/3-creamery.json', 'utf8'));
function run(program: string, ...args: string[]): string {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1e8 });
  if (status !== 0) throw new Error(`${program}: ${stderr}`);
  return stdout;
}

/** Law: each sheet says what its table says, cell by cell. */
async function readsBack(plan: Plan): Promise<void> {
  const file = path.join(folder, 'schedules.xlsx');
  fs.writeFileSync(file, await workbookOf(plan, TODAY));
  tablesOf(plan).forEach(({ title, head, rows }, i) => {
    const sheet = path.join(folder, `${i}.csv`);
    run('xlsx2csv', '-n', title, file, sheet);
    const read = Papa.parse<string[]>(fs.readFileSync(sheet, 'utf8').trimEnd()).data;
    expect(read).toEqual([head, ...rows(TODAY)].map((row) => [...row]));
  });
}

test('every sheet says what its table says', async () => {
  await readsBack(creamery);
  await readsBack(readPlanFile(fs.readFileSync('demo/2-clinic.json', 'utf8')));
});

test('also where records are odd: formulas, line ends, leading zeros and other scripts are text', async () => {
  const odd = ['=1+1', '007', '1e5', '配电室, “A”', '@SUM(A1)', 'true', '2026-12-01'];
  let plan = withEveryKind(drawPlan(11), 11);
  const cables = [...plan.cable.values()];
  cables.forEach((cable, i) => {
    plan = withRecord(plan, 'cable', cable.id, { ...cable, label: odd[i % odd.length]! });
  });
  expect(cables.length).toBeGreaterThan(0);
  await readsBack(plan);
  for (const label of odd) {
    const [cable] = [...creamery.cable.values()];
    await readsBack(withRecord(creamery, 'cable', cable!.id, { ...cable!, label }));
  }
});

test('the same plan on the same day gives the same bytes', async () => {
  const [a, b] = [await workbookOf(creamery, TODAY), await workbookOf(creamery, TODAY)];
  expect(Buffer.from(a).equals(Buffer.from(b))).toBe(true);
});

test('every drawing is XML, whatever things are called', async () => {
  let plan = withRecord(creamery, 'site', 'site', { ...siteOf(creamery), name: '<&">' });
  plan = withRecord(plan, 'device', deviceNamed(plan, 'sw-a').id, {
    ...deviceNamed(plan, 'sw-a'),
    name: 'sw <&"\u0007> 配电室',
  });
  const drawings = everyFile(plan, { today: TODAY, revision: 1 }).filter(({ path: at }) =>
    at.endsWith('.svg'),
  );
  expect(drawings.map(({ path: at }) => at)).toEqual(
    expect.arrayContaining(['map.svg', 'matrix.svg', 'channels.svg']),
  );
  for (const { bytes } of drawings) {
    const file = path.join(folder, 'drawing.svg');
    fs.writeFileSync(file, await bytes());
    expect(run('xmllint', '--xpath', 'name(/*)', file).trim()).toBe('svg');
  }
});
