import { unzipSync, zipSync } from 'fflate';

/** So much an archive may hold once it is unpacked, in bytes. */
export const MOST_UNPACKED = 100 * 1024 * 1024;

/** What an archive says it holds, in bytes, without unpacking it; null where it is none. */
export function unpackedSize(bytes: Uint8Array): number | null {
  let sum = 0;
  try {
    unzipSync(bytes, {
      filter: ({ originalSize }) => {
        sum += originalSize;
        return false;
      },
    });
  } catch {
    return null;
  }
  return sum;
}

/** The same archive with nothing packed: what says less than it holds is cut off at what it says. */
export const storedArchive = (bytes: Uint8Array): Uint8Array => zipSync(unzipSync(bytes), { level: 0 });
