import { type Zippable, strToU8, zipSync } from 'fflate';
import { labFiles } from '../../core/lab';
import type { Plan } from '../../core/plan';

/** Who made it, as archives have it: Unix, so that modes count. */
const UNIX = 3;

/** The plan as a running network in one archive; its script may be run as it is unpacked. */
export function networkArchive(plan: Plan, today: string | null): Uint8Array<ArrayBuffer> {
  const zipped: Zippable = Object.fromEntries(
    labFiles(plan, today).map(({ path, text, executable }) => [
      `network/${path}`,
      [strToU8(text), { os: UNIX, attrs: (executable ? 0o100755 : 0o100644) << 16 }],
    ]),
  );
  return zipSync(zipped, { mtime: `${today ?? '1980-01-01'}T12:00:00` }) as Uint8Array<ArrayBuffer>;
}
