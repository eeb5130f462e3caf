import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { type Zippable, strToU8, zipSync } from 'fflate';
import type { Written } from '../../core/formats';
import { type Plan, siteOf } from '../../core/plan';
import { everyFile } from './every-file';

/** All files of a plan in one archive, with what is in it. The same plan on the same day gives the same bytes. */
export async function archiveOf(plan: Plan, written: Written): Promise<Uint8Array<ArrayBuffer>> {
  const files = await Promise.all(
    everyFile(plan, written).map(async ({ path, title, bytes }) => ({ path, title, bytes: await bytes() })),
  );
  const manifest = {
    site: siteOf(plan).name,
    revision: written.revision,
    written: written.today,
    files: files.map(({ path, title, bytes }) => ({
      path,
      title,
      bytes: bytes.length,
      sha256: bytesToHex(sha256(bytes)),
    })),
  };
  const zipped: Zippable = {
    'manifest.json': strToU8(`${JSON.stringify(manifest, null, 2)}\n`),
    ...Object.fromEntries(files.map(({ path, bytes }) => [path, bytes])),
  };
  return zipSync(zipped, { mtime: `${written.today ?? '1980-01-01'}T12:00:00` }) as Uint8Array<ArrayBuffer>;
}
