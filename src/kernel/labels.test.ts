import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { labelGrids, labelsOf, readPlanFile } from '../core/formats';
import { Draft } from '../core/plan';
import { labelsPdf } from '../server/documents/pdf/labels';

/** Sheets of labels as poppler reads them, and their codes as a camera does. */

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-labels-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

const plan = readPlanFile(fs.readFileSync('demo/2-clinic.json', 'utf8'));
const BASE = 'http://192.0.2.10:4380/site/2clinic';
const run = (program: string, ...args: string[]): string => {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program}: ${stderr}`);
  return stdout;
};
async function written(labels: ReturnType<typeof labelsOf>, id: string, skip: number): Promise<string> {
  const file = path.join(folder, `${id}.pdf`);
  const grid = labelGrids.find((one) => one.id === id)!;
  fs.writeFileSync(file, await labelsPdf(labels, grid, skip, BASE, 'Clinic: labels'));
  return file;
}

test('a sheet has its size, its text can be searched, and its codes open the records', async () => {
  const labels = labelsOf(plan, 'ports').slice(0, 30);
  const file = await written(labels, 'a4-24', 2);
  const info = run('pdfinfo', file);
  expect(info).toMatch(/^Title: +Clinic: labels$/m);
  expect(info).toMatch(/^Pages: +2$/m);
  expect(info).toMatch(/^Page size: +595\.\d+ x 841\.\d+ pts \(A4\)$/m);
  const text = run('pdftotext', '-layout', file, '-');
  for (const { big } of labels) expect(text).toContain(big);
  expect(run('pdffonts', file)).not.toMatch(/ no +(yes|no) +(yes|no) +\d+ +\d+$/m);
  run('pdftoppm', '-r', '200', '-png', file, path.join(folder, 'page'));
  const pages = fs.readdirSync(folder).filter((name) => name.startsWith('page'));
  // A picture at a time: the reader lists what it finds in each.
  const codes = pages.flatMap((name) =>
    run('zbarimg', '-q', '--raw', path.join(folder, name)).split('\n').filter(Boolean),
  );
  expect(new Set(codes)).toEqual(new Set(labels.map((label) => `${BASE}${label.path}`)));
});

test('small labels and names of any alphabet the fonts have stay whole', async () => {
  const draft = new Draft(plan, 'names');
  const [device] = [...plan.device.values()].filter(({ name }) => name === 'sw-kennels');
  draft.update('device', device!.id, { name: 'Ωмега-Łódź' });
  const labels = labelsOf(draft.plan, 'boxes');
  const text = run('pdftotext', '-layout', await written(labels, 'a4-189', 0), '-');
  expect(text).toContain('Ωмега-Łódź');
  expect(text).toContain('sw-rack');
  const letter = run('pdfinfo', await written(labels, 'letter-30', 0));
  expect(letter).toMatch(/\(letter\)$/m);
});
