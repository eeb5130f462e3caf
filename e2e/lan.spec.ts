import { mkdtempSync, rmSync } from 'node:fs';
import https from 'node:https';
import { networkInterfaces, tmpdir } from 'node:os';
import path from 'node:path';
import { devices } from '@playwright/test';
import { expect, test } from './site';
import { freePort, start } from './started';

const [address] = Object.values(networkInterfaces())
  .flatMap((items) => items ?? [])
  .filter(({ family, internal }) => family === 'IPv4' && !internal)
  .map((item) => item.address);

/** Does anybody answer there? */
const answers = (host: string, port: number) =>
  new Promise<boolean>((resolve) => {
    https
      .get({ host, port, rejectUnauthorized: false }, (response) => {
        response.resume();
        resolve(true);
      })
      .on('error', () => resolve(false));
  });

test('a phone is paired with one run by a code, ticks its steps, and sees nothing else', async ({
  page,
  browser,
}) => {
  test.skip(address === undefined, 'this machine is on no network');
  test.setTimeout(400_000);
  const data = mkdtempSync(path.join(tmpdir(), 'dianome-lan-'));
  const [port, lanPort] = [await freePort(), await freePort()];
  const base = `http://127.0.0.1:${port}`;
  const lan = `https://${address}:${lanPort}`;
  const env = { DIANOME_LAN_PORT: String(lanPort) };
  const context = await browser.newContext({ ...devices['Pixel 5'], ignoreHTTPSErrors: true });
  try {
    // Without being asked for, nothing but loopback is served, and the dialog says how to ask.
    const closed = start(port, data, [], { ...env, DIANOME_LAN: lan });
    await expect.poll(closed.said, { timeout: 150_000 }).toContain('ready');
    expect(await answers(address!, lanPort)).toBe(false);
    expect(await answers(address!, port)).toBe(false);
    await page.addInitScript(() => localStorage.setItem('dianome.author', 'Ada'));
    await page.goto(`${base}/site/1rowhouse/commission`);
    await page.getByRole('button', { name: 'Start a run' }).click();
    await page.getByRole('dialog', { name: 'Start a run' }).getByLabel('Name').fill('cellar');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('region', { name: 'What to do now' })).toContainText('Sit down at');
    const run = page.url();
    await page.getByRole('button', { name: 'Pair a phone' }).click();
    const dialog = page.getByRole('dialog', { name: 'Pair a phone' });
    await expect(dialog.getByRole('alert')).toContainText('npm start -- --lan');
    closed.child.kill('SIGINT');
    await closed.ended;

    const opened = start(port, data, ['--lan'], env);
    await expect.poll(opened.said, { timeout: 150_000 }).toContain(`reach it at ${lan}`);
    expect(opened.said()).toMatch(/SHA-256 fingerprint of its certificate: ([0-9A-F]{2}:){31}/);
    await page.goto(run);
    await page.getByRole('button', { name: 'Pair a phone' }).click();
    await expect(dialog.getByRole('img', { name: 'The code to scan with the phone' })).toBeVisible();
    const code = (await dialog.getByText(`${lan}/pair?offer=`).textContent())!;
    await page.keyboard.press('Escape');

    const phone = await context.newPage();
    await phone.goto(`${lan}/site/1rowhouse/run`);
    await expect(phone.getByText('This phone is not paired.')).toBeVisible();
    await phone.goto(code);
    await phone.getByRole('button', { name: 'Pair this phone' }).click();
    await phone.getByLabel('Your name').fill('Bo');
    await phone.keyboard.press('Enter');
    const now = phone.getByRole('region', { name: 'What to do now' });
    await expect(now).toContainText('Sit down at');
    await now.getByRole('button', { name: 'I sit there' }).click();
    await expect(now).toContainText('Make VLAN');
    await now.getByRole('button', { name: 'Done and seen' }).click();
    // The laptop hears of it.
    await expect(page.getByRole('progressbar', { name: 'Settings done' })).toHaveAttribute(
      'aria-valuenow',
      '1',
    );
    await expect(page.getByRole('list', { name: 'Entries, newest first' })).toContainText('Bo');
    await expect(phone.getByRole('button', { name: 'Pair a phone' })).toHaveCount(0);

    const phoneAsks = async (method: string, at: string, body?: object) =>
      (await phone.request.fetch(`${lan}${at}`, { method, ...(body ? { data: body } : {}) })).status();
    expect(await phoneAsks('GET', '/site/1rowhouse/gear')).toBe(403);
    expect(await phoneAsks('GET', '/api/sites')).toBe(403);
    expect(await phoneAsks('POST', '/api/sites/1rowhouse/changes', {})).toBe(403);
    expect(await phoneAsks('GET', '/api/sites/2clinic/plan')).toBe(403);
    const at = new Date().toISOString();
    const note = { kind: 'note', text: 'x', about: null, reading: '', photos: [] };
    const entries = [{ id: 'entry00000001', author: 'Bo', at, revision: 0, body: note }];
    expect(await phoneAsks('POST', '/api/sites/1rowhouse/log', { sent: at, entries })).toBe(422);
    // The code is used up, and one that ended sees the run no more.
    const other = await browser.newContext({ ignoreHTTPSErrors: true });
    const late = await other.newPage();
    await late.goto(code);
    await late.getByRole('button', { name: 'Pair this phone' }).click();
    await expect(late.getByText('This code was used already')).toBeVisible();
    await other.close();
    await page.getByRole('button', { name: 'Pair a phone' }).click();
    await dialog.getByRole('button', { name: 'Unpair all phones of this run' }).click();
    await expect(dialog.getByRole('status').filter({ hasText: 'They see the run no more' })).toBeVisible();
    expect(await phoneAsks('GET', '/api/sites/1rowhouse/log?since=0')).toBe(403);
    opened.child.kill('SIGTERM');
    expect(await opened.ended).toBe(0);
  } finally {
    await context.close();
    rmSync(data, { recursive: true, force: true });
  }
});
