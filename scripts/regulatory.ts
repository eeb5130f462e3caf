import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';

/**
 * Writes the table of what is allowed on the air from Debian's package wireless-regdb: per country the ranges of
 * frequencies with their widest channel, highest power and conditions, and the licence beside it. The form of the file is
 * that of the Linux kernel (net/wireless/reg.c, version 20): big-endian, pointers in units of four bytes.
 */

const MAGIC = 0x52474442;
const VERSION = 20;
/** Not outdoors; after listening for radar; not as the first to speak; wider with the range beside it. */
const flags = { indoors: 1 << 1, radar: 1 << 2, silent: 1 << 3, joins: 1 << 4 } as const;

/** A rule in a line: from and to in MHz, the widest channel in MHz, the highest EIRP in dBm, then its conditions. */
interface Rule {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

function ruleAt(db: Buffer, at: number): Rule {
  const flag = db[at + 1]!;
  const megahertz = (offset: number) => db.readUInt32BE(at + offset) / 1000;
  const [from, to, width] = [megahertz(4), megahertz(8), megahertz(12)];
  // In hundredths of a dBm.
  const power = Math.floor(db.readUInt16BE(at + 2) / 100);
  const conditions = Object.entries(flags).flatMap(([name, bit]) => (flag & bit ? [name] : []));
  return { from, to, text: [from, to, width, power, ...conditions].join(' ') };
}

function rulesAt(db: Buffer, at: number): Rule[] {
  const [length, count] = [db[at]!, db[at + 1]!];
  const first = at + Math.ceil(length / 2) * 2;
  return Array.from({ length: count }, (_, i) => ruleAt(db, db.readUInt16BE(first + 2 * i) * 4));
}

/** The regions of radar rules, as the kernel numbers them. */
const REGIONS = ['none', 'fcc', 'etsi', 'jp'] as const;

function countriesIn(db: Buffer) {
  if (db.readUInt32BE(0) !== MAGIC || db.readUInt32BE(4) !== VERSION)
    throw new Error('this is no regulatory database of version 20');
  const sets: { region: string; rules: string[] }[] = [];
  const known = new Map<number, number>();
  const countries: Record<string, number> = {};
  for (let at = 8; db[at] !== 0; at += 4) {
    const code = db.toString('latin1', at, at + 2);
    const pointer = db.readUInt16BE(at + 2) * 4;
    if (!known.has(pointer)) {
      const rules = rulesAt(db, pointer)
        // Only the bands of access points.
        .filter(({ from, to }) => (to > 2400 && from < 2500) || (to > 5150 && from < 7130))
        .map(({ text }) => text);
      known.set(pointer, sets.push({ region: REGIONS[db[pointer + 2]!]!, rules }) - 1);
    }
    countries[code] = known.get(pointer)!;
  }
  return { sets, countries };
}

async function main() {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'regulatory-'));
  execFileSync('apt-get', ['download', '-qq', 'wireless-regdb'], {
    cwd: folder,
    stdio: ['ignore', 'inherit', 'ignore'],
  });
  const deb = readdirSync(folder).find((name) => name.endsWith('.deb'))!;
  execFileSync('dpkg', ['-x', deb, 'out'], { cwd: folder });
  const version = execFileSync('dpkg-deb', ['-f', deb, 'Version'], { cwd: folder, encoding: 'utf8' }).trim();
  const table = {
    package: `wireless-regdb ${version}`,
    // The version begins with the day the table is of.
    date: version.slice(0, 10).replaceAll('.', '-'),
    ...countriesIn(readFileSync(path.join(folder, 'out/lib/firmware/regulatory.db-debian'))),
  };
  const target = path.join(process.cwd(), 'src/core/model/wireless/regulatory-table');
  const json = { ...(await resolveConfig(`${target}.json`)), parser: 'json' };
  writeFileSync(`${target}.json`, await format(JSON.stringify(table), json));
  writeFileSync(
    `${target}.licence.txt`,
    readFileSync(path.join(folder, 'out/usr/share/doc/wireless-regdb/copyright')),
  );
  rmSync(folder, { recursive: true });
  console.log(
    `${table.package}: ${Object.keys(table.countries).length} countries, ${table.sets.length} sets of rules`,
  );
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
