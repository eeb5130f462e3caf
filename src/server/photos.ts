import { mkdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { Problem } from './problems';

/** The photos of the logs: files beside the database, in a folder for each site. Ids are checked before they come here. */
const folderOf = (site: string): string =>
  path.join(process.env.DIANOME_PHOTOS || path.join(os.tmpdir(), 'dianome-photos'), site);
const fileOf = (site: string, id: string): string => path.join(folderOf(site), `${id}.jpg`);

const isJpeg = (bytes: Uint8Array): boolean => bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff;

/** Keeps a photo; one that is there already stays as it is. Throws a Problem where it is no JPEG picture. */
export async function keepPhoto(site: string, id: string, bytes: Uint8Array): Promise<void> {
  if (!isJpeg(bytes))
    throw new Problem(422, 'No picture', 'The photo is no JPEG picture; take it again.', { path: ['jpeg'] });
  if (await photoOf(site, id)) return;
  await mkdir(folderOf(site), { recursive: true, mode: 0o700 });
  // Only a whole photo gets the name.
  const part = `${fileOf(site, id)}.${process.pid}.part`;
  await writeFile(part, bytes, { mode: 0o600 });
  await rename(part, fileOf(site, id));
}

/** A photo, or null where there is none. */
export const photoOf = (site: string, id: string): Promise<Buffer<ArrayBuffer> | null> =>
  readFile(fileOf(site, id)).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });

export const removePhotos = (site: string): Promise<void> =>
  rm(folderOf(site), { recursive: true, force: true });
