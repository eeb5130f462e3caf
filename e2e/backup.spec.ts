import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from './site';
import { freePort, start } from './started';

/** A command of the program on a data folder; what it said. */
function command(data: string, ...args: string[]): string {
  const { DATABASE_URL: _url, DIANOME_PHOTOS: _photos, ...env } = process.env;
  const { status, stdout, stderr } = spawnSync(process.execPath, ['scripts/backup.mjs', ...args], {
    env: { ...env, DIANOME_DATA_DIR: data },
    encoding: 'utf8',
  });
  if (status !== 0) throw new Error(`${args[0]} failed:\n${stdout}${stderr}`);
  return stdout;
}

test('a copy made while the program runs brings sites, logs and photos back in another place', async ({
  request,
}) => {
  test.setTimeout(400_000);
  const folder = mkdtempSync(path.join(tmpdir(), 'dianome-backup-'));
  const [data, other, copy] = ['data', 'other', 'copy.sql.gz'].map((name) => path.join(folder, name));
  const ready = async (at: string) => {
    const port = await freePort();
    const started = start(port, at);
    await expect.poll(started.said, { timeout: 150_000 }).toContain('ready');
    return { base: `http://127.0.0.1:${port}`, ...started };
  };
  const photo = {
    id: 'photo00000001',
    jpeg: Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3]).toString('base64'),
  };
  try {
    const first = await ready(data!);
    const sent = await request.post(`${first.base}/api/sites/1rowhouse/photos`, { data: photo });
    expect(sent.status()).toBe(200);
    const now = new Date().toISOString();
    const body = { kind: 'note', text: 'fan is loud', about: null, reading: '', photos: [photo.id] };
    const noted = await request.post(`${first.base}/api/sites/1rowhouse/log`, {
      data: { sent: now, entries: [{ id: 'entry00000001', author: 'Ada', at: now, revision: 0, body }] },
    });
    expect(noted.status()).toBe(200);
    expect(command(data!, 'backup', copy!)).toContain(`Saved and checked: ${copy}`);
    first.child.kill('SIGTERM');
    await first.ended;

    expect(command(other!, 'restore', copy!, '--yes')).toContain(`Restored from ${copy}`);
    const second = await ready(other!);
    const log = await request.get(`${second.base}/api/sites/1rowhouse/log?since=0`);
    expect(await log.text()).toContain('fan is loud');
    const kept = await request.get(`${second.base}/api/sites/1rowhouse/photos?id=${photo.id}`);
    expect((await kept.body()).toString('base64')).toBe(photo.jpeg);
    second.child.kill('SIGTERM');
    await second.ended;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
