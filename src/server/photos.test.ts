import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { keepPhoto, photoOf, removePhotos } from './photos';

const folder = mkdtempSync(path.join(os.tmpdir(), 'dianome-photos-test-'));
beforeAll(() => {
  process.env.DIANOME_PHOTOS = folder;
});
afterAll(() => {
  delete process.env.DIANOME_PHOTOS;
  rmSync(folder, { recursive: true, force: true });
});
const jpeg = (last: number) => new Uint8Array([0xff, 0xd8, 0xff, 0xe0, last]);

test('a photo is kept once, by its id, and goes with its site', async () => {
  expect(await photoOf('site1', 'photo0001')).toBeNull();
  await keepPhoto('site1', 'photo0001', jpeg(1));
  await keepPhoto('site1', 'photo0001', jpeg(2));
  expect([...(await photoOf('site1', 'photo0001'))!]).toEqual([...jpeg(1)]);
  expect(await photoOf('site2', 'photo0001')).toBeNull();
  // Nothing half is left behind.
  expect(readdirSync(path.join(folder, 'site1'))).toEqual(['photo0001.jpg']);
  await removePhotos('site1');
  expect(await photoOf('site1', 'photo0001')).toBeNull();
});

test('what is no picture is refused', async () => {
  const refused = keepPhoto('site1', 'photo0002', new TextEncoder().encode('<html>'));
  await expect(refused).rejects.toMatchObject({
    status: 422,
    detail: 'The photo is no JPEG picture; take it again.',
  });
  expect(await photoOf('site1', 'photo0002')).toBeNull();
});
