import { type ChildProcess, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from '@playwright/test';
import { demoSite, expect, fill, open, saved, test } from './site';
import { freePort, start } from './started';

/** What a user sees when something fails, and that it comes back by itself. On an application of its own, to be broken. */
const pidIn = (text: string) => Number(/\d+/.exec(text)![0]);
/** The web server, as the start command’s child. */
const webOf = ({ pid }: ChildProcess) => {
  const children = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim().split(' ');
  return Number(
    children.find((child) => readFileSync(`/proc/${child}/cmdline`, 'utf8').includes('main.mjs')),
  );
};

test('the database killed, then the web server: what is typed is kept, said where it is, and saved after all', async ({
  page,
}) => {
  test.setTimeout(400_000);
  const data = mkdtempSync(path.join(tmpdir(), 'dianome-failing-'));
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const started = start(port, data);
  try {
    await expect.poll(started.said, { timeout: 150_000 }).toContain('ready');
    await page.goto(`${url}/site/1rowhouse/segments`);
    await fill(page, 'Name of Family', 'Before');
    await saved(page);
    process.kill(pidIn(readFileSync(path.join(data, 'mariadb.pid'), 'utf8')), 'SIGKILL');
    await fill(page, 'Name of Before', 'Without database');
    await expect(page.getByText(/Not saved: The database does not answer/)).toBeVisible();
    await expect(page.getByText('One change waits in this browser')).toBeVisible();
    // The start command starts it again, and the page goes on by itself.
    expect(await saved(page)).toBe(2);
    await expect(page.getByText(/Not saved/)).toBeHidden();

    expect(started.said()).toContain('The database ended by itself');
    process.kill(webOf(started.child), 'SIGKILL');
    await fill(page, 'Name of Without database', 'Without server');
    await expect(page.getByText(/The server cannot be reached/)).toBeVisible();
    expect(await saved(page)).toBe(3);
    await expect(page.getByText(/The server cannot be reached/)).toBeHidden();
    await page.reload();
    await expect(page.getByLabel('Name of Without server')).toBeVisible();
  } finally {
    started.child.kill('SIGINT');
    await started.ended;
    rmSync(data, { recursive: true, force: true });
  }
});

test('the disk full: what is saved can be read, writing says why, and goes on once there is space', async ({
  page,
}) => {
  test.setTimeout(400_000);
  const data = mkdtempSync(path.join(tmpdir(), 'dianome-full-'));
  const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=480m', 'tmpfs', data]);
  test.skip(mounted.status !== 0, 'only who may mount can fill a disk of its own');
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const started = start(port, data);
  try {
    await expect.poll(started.said, { timeout: 150_000 }).toContain('ready');
    const { bavail, bsize } = statfsSync(data);
    const ballast = path.join(data, 'ballast');
    writeFileSync(ballast, Buffer.alloc(bavail * bsize));
    // The files of the database have some room of their own; sites are copied until it is used up.
    const copy = () =>
      page.request.post(`${url}/api/sites`, { data: { duplicate: '3creamery', name: 'Copy' } });
    let last = await copy();
    for (let copies = 1; last.ok() && copies < 300; copies++) last = await copy();
    expect(last.status()).toBe(503);

    await page.goto(url);
    await page.getByRole('button', { name: 'duplicate Saltmarsh Creamery' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByRole('button', { name: 'Duplicate it' }).click();
    await expect(dialog.getByRole('alert')).toHaveText(
      'The disk of the database is full. What is saved can be read; free some space to save again.',
    );
    rmSync(ballast);
    await dialog.getByRole('button', { name: 'Duplicate it' }).click();
    await expect(dialog).toBeHidden();
    await page.goto(`${url}/site/1rowhouse/segments`);
    await fill(page, 'Name of Family', 'With space again');
    expect(await saved(page)).toBe(1);
  } finally {
    started.child.kill('SIGINT');
    await started.ended;
    spawnSync('umount', [data]);
    rmSync(data, { recursive: true, force: true });
  }
});

test('a server that answers 500: the change is tried, then shown, and the next ones are saved', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  let failures = 0;
  await page.route('**/changes', (route) => {
    if (!route.request().postData()?.includes('Never')) return route.continue();
    failures++;
    return route.fulfill({ status: 500, json: { title: 'Server error', status: 500, detail: 'It broke.' } });
  });
  await fill(page, 'Name of Family', 'Never');
  await fill(page, 'VLAN id of Home office', '77');
  const conflicts = page.getByRole('region', { name: 'Edits not applied' });
  await expect(conflicts).toContainText('name Family → Never. It broke.');
  expect(failures).toBe(3);
  await expect(page.getByText('change 1 conflict')).toBeVisible();
  await conflicts.getByRole('button', { name: 'Let it go' }).click();
  expect(await saved(page)).toBe(1);
  await expect(page.getByLabel('VLAN id of Home office')).toHaveValue('77');
});

test('a page of an earlier build says so, and goes on', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await page.route('**/changes', async (route) => {
    const response = await route.fetch();
    await route.fulfill({ response, headers: { ...response.headers(), 'x-dianome-version': 'another' } });
  });
  await fill(page, 'Name of Family', 'Upstairs');
  await expect(page.getByText('The program was updated.')).toBeVisible();
  expect(await saved(page)).toBe(1);
});

test('findings that cannot be worked out are said, and worked out again when asked', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await page.addInitScript(() => {
    const Real = window.Worker;
    // Broken, and once more when it is tried again by itself.
    let broken = 2;
    window.Worker = class extends Real {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(broken-- > 0 ? '/nosuchfile.js' : url, options);
      }
    };
  });
  await page.goto(`/site/${site}/segments`);
  await expect(page.getByText(/The findings are not worked out/)).toBeVisible();
  await fill(page, 'Name of Family', 'Upstairs');
  await saved(page);
  await page.getByRole('button', { name: 'Work them out again' }).click();
  await expect(page.getByText(/The findings are not worked out/)).toBeHidden();
  await expect(page.getByRole('link', { name: /Addresses fix \d/ })).toBeVisible();
});

test('a check that never ends is left out and said, and all others find what they find', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await page.clock.install();
  // In the worker one check loops for ever unless it is left out.
  const endless = `let leftOut = false;
    addEventListener('message', ({ data }) => { leftOut = data.leftOut?.size > 0; });
    const { get } = Map.prototype;
    Map.prototype.get = function (key) {
      if (key === 'segment-name-twice' && !leftOut) for (;;);
      return get.call(this, key);
    };`;
  await page.addInitScript((before) => {
    const Real = window.Worker;
    window.Worker = class extends Real {
      constructor(url: string | URL, options?: WorkerOptions) {
        const { href, hash } = new URL(url, location.href);
        const program = new Blob([`${before}; importScripts(${JSON.stringify(href)});`]);
        super(`${URL.createObjectURL(program)}${hash}`, { ...options, type: 'classic' });
        this.addEventListener('message', ({ data }) => {
          if (data.type === 'begun') Object.assign(window, { begun: data.subject });
        });
      }
    };
  }, endless);
  await page.goto(`/site/${site}/segments`);
  await expect(page.getByLabel('Name of Family')).toBeVisible();
  await expect(page.getByText('Checking…')).toBeVisible();
  await page.clock.runFor(31_000);
  // It is tried again, check by check, until the page hears of none after this one.
  await expect.poll(() => page.evaluate('window.begun')).toMatch(/^site segment-name-twice/);
  await page.clock.runFor(9_000);
  await expect(page.getByText('Not checked: segment name twice')).toBeVisible();
  await expect(page.getByText('It takes longer than 8 seconds on this plan.')).toBeVisible();
  await expect(page.getByRole('link', { name: /Addresses fix \d/ })).toBeVisible();
  await fill(page, 'Name of Family', 'Upstairs');
  expect(await saved(page)).toBe(1);
});

const makeMistake = (page: Page) =>
  page.evaluate(() => {
    void Promise.reject(new Error('boom'));
  });

test('Escape closes a sheet also after a refusal came up over it', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await page.keyboard.press('?');
  const sheet = page.getByRole('dialog');
  await expect(sheet.locator(':focus')).toHaveCount(1);
  await makeMistake(page);
  await expect(page.getByText('made a mistake of its own').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet).toBeHidden();
});

test('a refusal that belongs to no field is told in one place', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site);
  await makeMistake(page);
  await expect(page.getByRole('listitem', { name: 'Refused' })).toContainText('made a mistake of its own');
  await page.getByRole('listitem', { name: 'Refused' }).getByRole('button', { name: 'dismiss' }).click();
  await expect(page.getByRole('listitem', { name: 'Refused' })).toBeHidden();
});
