import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from './site';
import { freePort, start } from './started';

test('starts, keeps the data over a second start, ends on Ctrl-C with a page open, and resets with --fresh', async ({
  page,
}) => {
  test.setTimeout(400_000);
  const data = mkdtempSync(path.join(tmpdir(), 'dianome-start-'));
  const port = await freePort();
  const base = `http://127.0.0.1:${port}`;
  try {
    const first = start(port, data);
    await expect.poll(first.said, { timeout: 150_000 }).toContain(`ready: ${base}`);
    const made = await page.request.post(`${base}/api/sites`, {
      data: { create: { name: 'Kept yard', kind: 'home' } },
    });
    expect(made.status()).toBe(201);
    await page.goto(`${base}/site/1rowhouse/segments`);
    await expect(page.getByLabel('Name of Family')).toBeVisible();

    const refused = start(port, data, ['--fresh']);
    expect(await refused.ended).toBe(1);
    expect(refused.said()).toContain('without a terminal to ask on, add --yes');
    const taken = start(port, data);
    expect(await taken.ended).toBe(1);
    expect(taken.said()).toContain(`Port ${port} on 127.0.0.1 is taken`);

    const database = Number(readFileSync(path.join(data, 'mariadb.pid'), 'utf8'));
    first.child.kill('SIGINT');
    expect(await first.ended).toBe(0);
    expect(() => process.kill(database, 0)).toThrow('ESRCH');

    const second = start(port, data);
    await expect.poll(second.said, { timeout: 150_000 }).toContain('ready');
    expect(second.said()).not.toContain('Building');
    const names = async () =>
      (
        (await (await page.request.get(`${base}/api/sites`)).json()) as { sites: { name: string }[] }
      ).sites.map((site) => site.name);
    expect(await names()).toContain('Kept yard');
    second.child.kill('SIGINT');
    await second.ended;

    const fresh = start(port, data, ['--fresh', '--yes']);
    await expect.poll(fresh.said, { timeout: 150_000 }).toContain('ready');
    expect(await names()).toHaveLength(4);
    fresh.child.kill('SIGTERM');
    expect(await fresh.ended).toBe(0);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
});

test('says plainly what is wrong with its settings', async () => {
  const inside = start(await freePort(), path.join(process.cwd(), 'data'));
  expect(await inside.ended).toBe(1);
  expect(inside.said()).toContain('inside the checkout');
  const port = start(99999, tmpdir());
  expect(await port.ended).toBe(1);
  expect(port.said()).toContain('PORT is “99999”; write a number from 1 to 65535');
  const database = start(await freePort(), tmpdir(), [], {
    DATABASE_URL: 'mysql://nobody:x@127.0.0.1:1/none',
  });
  expect(await database.ended).toBe(1);
  expect(database.said()).toContain('The database does not answer');
  const option = start(await freePort(), tmpdir(), ['--frehs']);
  expect(await option.ended).toBe(1);
  expect(option.said()).toContain('Unknown option --frehs');
});

/** Runs a line of code in the start command's process before it begins: the machine as somebody else may have it. */
const before = (code: string) => ({
  NODE_OPTIONS: `--import=data:text/javascript,${encodeURIComponent(code)}`,
});

test('an old Node.js and a full disk are named before anything is touched', async () => {
  const data = path.join(mkdtempSync(path.join(tmpdir(), 'dianome-start-')), 'data');
  const old = start(
    await freePort(),
    data,
    [],
    before("Object.defineProperty(process,'versions',{value:{...process.versions,node:'18.20.4'}})"),
  );
  expect(await old.ended).toBe(1);
  expect(old.said()).toContain('This is Node.js 18.20.4; Dianome needs 20.9 or newer');
  const full = start(
    await freePort(),
    data,
    [],
    before("import fs from 'node:fs';fs.statfsSync=()=>({bavail:12,bsize:1048576})"),
  );
  expect(await full.ended).toBe(1);
  expect(full.said()).toContain('Only 12 MB are free on the disk');
  expect(existsSync(data)).toBe(false);
});

test('two first starts at once on one folder, whose name has a space, both come up', async ({ request }) => {
  test.setTimeout(400_000);
  const data = path.join(mkdtempSync(path.join(tmpdir(), 'dianome-start-')), 'my plans');
  const ports = [await freePort(), await freePort()];
  const both = ports.map((port) => start(port, data));
  try {
    for (const [i, one] of both.entries())
      await expect.poll(one.said, { timeout: 120_000 }).toContain(`ready: http://127.0.0.1:${ports[i]}`);
    for (const port of ports) {
      const { sites } = await (await request.get(`http://127.0.0.1:${port}/api/sites`)).json();
      expect(sites).toHaveLength(4);
    }
  } finally {
    for (const { child, ended } of both) {
      child.kill('SIGINT');
      await ended;
    }
    rmSync(path.dirname(data), { recursive: true, force: true });
  }
});

test('a data folder that cannot be written to is named in one line, with the way out', async () => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'dianome-start-')), 'file');
  writeFileSync(file, '');
  const started = start(await freePort(), path.join(file, 'data'));
  expect(await started.ended).toBe(1);
  expect(started.said()).toContain(`The data folder ${file}/data cannot be written to`);
  expect(started.said()).toContain('DIANOME_DATA_DIR=/path npm start');
  expect(started.said()).not.toContain('    at ');
});
