import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readPlanFile, writePlanFile } from '../core/formats';
import { done, emptySite } from '../core/testing/plans';
import { runCommand, usage } from './main';

const TODAY = '2026-11-30';
const CLINIC = 'demo/2-clinic.json';
const run = (...args: string[]) => runCommand(args, TODAY);
const json = async (...args: string[]) => JSON.parse((await run(...args, '--json')).out);

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'dianome-cli-'));
});
afterAll(() => rmSync(folder, { recursive: true }));
const own = (name: string, text: string) => {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
};
const clinic = readPlanFile(readFileSync(CLINIC, 'utf8'));

test('a plan is checked as the program checks it, from a severity up', async () => {
  const { code, out } = await run('check', CLINIC);
  expect(code).toBe(1);
  expect(out).toMatch(/^stop {2}addresses: 10\.20\.70\.10 is given twice$/m);
  expect(out).toMatch(/Harrow Lane Animal Clinic: 5 stop, \d+ fix, \d+ note$/);
  const said = await json('check', CLINIC);
  expect(said.counts.stop).toBe(5);
  expect(said.findings[0]).toMatchObject({ severity: 'stop', remedies: expect.any(Array) });
  expect((await json('check', CLINIC, '--accepted')).findings.length).toBeGreaterThanOrEqual(
    said.findings.length,
  );
  // A plan with notes only is good enough where nobody asks for more.
  const bare = own('bare.json', writePlanFile(emptySite()));
  const found = await json('check', bare);
  expect((await run('check', bare)).code).toBe(found.counts.stop + found.counts.fix > 0 ? 1 : 0);
  expect((await run('check', bare, '--from', 'note')).code).toBe(found.findings.length > 0 ? 1 : 0);
});

test('what gets through is asked as under Rehearse', async () => {
  const through = await run('probe', CLINIC, 'sw-rack 9', 'internet', 'https');
  expect([through.code, through.error]).toEqual([0, '']);
  expect(through.out).toMatch(/gets through\n/);
  const refused = await json('probe', CLINIC, 'Waiting room', 'gw-1', 'https');
  expect(refused.delivered).toBe(false);
  expect((await run('probe', CLINIC, 'Waiting room', 'gw-1', 'https')).code).toBe(1);
  const kept = await json('probe', CLINIC, '--questions');
  expect(kept.questions).toHaveLength(clinic.question.size);
  const wrong = kept.questions.filter((one: { asExpected: boolean }) => !one.asExpected).length;
  expect((await run('probe', CLINIC, '--questions')).code).toBe(wrong > 0 ? 1 : 0);
});

test('the files of a plan are listed, printed, and written to a folder', async () => {
  const listed = (await run('export', CLINIC)).out.split('\n').map((line) => line.split('  ')[0]!);
  expect(listed).toContain('gw-1/dnsmasq.conf');
  const to = path.join(folder, 'out');
  expect((await run('export', CLINIC, '--to', to)).out).toBe(`${listed.length} files written to ${to}`);
  const written = readdirSync(to, { recursive: true, withFileTypes: true }).filter((entry) => entry.isFile());
  expect(written).toHaveLength(listed.length);
  expect((await run('export', CLINIC, 'gw-1/dnsmasq.conf')).out).toBe(
    readFileSync(path.join(to, 'gw-1/dnsmasq.conf'), 'utf8').trimEnd(),
  );
});

test('two plans are compared record by record', async () => {
  expect(await run('compare', CLINIC, CLINIC)).toEqual({ code: 0, out: 'The two are alike.', error: '' });
  const vlan = [...clinic.vlan.values()].find(({ name }) => name === 'Servers')!;
  const other = done(clinic, 'edit', { table: 'vlan', id: vlan.id, set: { name: 'Machines' } });
  const at = own('other.json', writePlanFile(other));
  expect(await run('compare', CLINIC, at)).toEqual({
    code: 1,
    out: '  segment Servers (VLAN 30): name Servers → Machines',
    error: '',
  });
});

test('what is misused is told with how it is written, and nothing is half done', async () => {
  for (const [args, says] of [
    [['fly'], 'There is no command fly.'],
    [['check'], 'Name a plan file.'],
    [['check', 'nowhere.json'], 'nowhere.json cannot be read: ENOENT.'],
    [['check', own('bad.json', '{"half":')], 'bad.json: '],
    [['check', CLINIC, '--from', 'blunder'], '“blunder” is no severity: stop, fix, note.'],
    [['check', CLINIC, '--from'], '--from takes a severity.'],
    [['check', CLINIC, '--fast'], 'There is no --fast here.'],
    [['probe', CLINIC, 'sw-rack 9'], 'Name two ends'],
    [['probe', CLINIC, 'sw-rack 900', 'internet'], 'sw-rack has no port 900'],
    [['export', CLINIC, 'nothing.conf'], 'There is no nothing.conf'],
    [['export', CLINIC, '--revision', 'x'], '“x” is no revision'],
    [['compare', CLINIC], 'Name a second plan file.'],
  ] as const) {
    const { code, out, error } = await run(...args);
    expect([args, code, out]).toEqual([args, 2, '']);
    expect(error).toContain(says);
    expect(error).toContain('npm run dianome -- ');
  }
  expect((await run('help')).out).toBe(usage());
});

test('a whole first plan is worked out from a brief, written, and checked like any other', async () => {
  const to = path.join(folder, 'library.json');
  const { code, out } = await run('propose', 'demo/4-library.json', '--to', to);
  expect([code, out.includes('VLANs, ring: ')]).toEqual([0, true]);
  expect((await json('check', to)).counts.stop).toBe(0);
  expect((await run('probe', to, '--questions')).code).toBe(0);
  const flat = await json('propose', 'demo/4-library.json', '--separation', 'flat');
  expect(flat.unmet.length).toBeGreaterThan(0);
  expect((await run('propose', 'demo/4-library.json', '--separation', 'flat')).code).toBe(1);
  expect((await run('propose', 'demo/4-library.json', '--separation', 'walls')).error).toMatch(
    /^“walls” is none of vlans, flat, separate/,
  );
  expect((await run('propose', own('nobrief.json', writePlanFile(emptySite())))).error).toMatch(
    /names nothing/,
  );
});
