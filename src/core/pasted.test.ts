import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { foundAgainst, readFound } from './commission';
import { typedCables, typedCarried } from './edit';
import { findInPlan } from './find';
import { openFiles, readPlanFile, tablesOf } from './formats';
import { type FileKind, fileKinds, importing, kindOfFile, readAs, tableKinds } from './imports';
import { typedMatches } from './model/policy';
import { typedTagged } from './model/wiring';
import { Refusal, finish } from './plan';
import { typedBoxPort, typedEntry, typedFault, typedReceiver, typedSender, typedWanted } from './rehearse';
import { dnsmasqSample, nftSample, zoneSample } from './testing/files';
import { runs } from './testing/runs';

/** Whatever is typed or pasted where text is read, it is understood or refused in words. */

const TODAY = '2026-12-01';
const plan = readPlanFile(readFileSync('demo/2-clinic.json', 'utf8'));

const files: readonly string[] = [
  dnsmasqSample,
  zoneSample,
  nftSample,
  '[{"ifname":"eth0","addr_info":[{"local":"10.20.20.5","prefixlen":24}]}]',
  '10.20.20.5 dev eth0 lladdr 00:00:5e:00:53:01 REACHABLE\n10.20.20.6 dev eth0 FAILED',
  '{"Dhcp4":{"subnet4":[{"subnet":"10.20.20.0/24","pools":[{"pool":"10.20.20.10 - 10.20.20.20"}]}]}}',
  ...openFiles(plan).map(({ text }) => text({ today: TODAY, revision: 7 })),
].map((text) => text.slice(0, 4000));

const word = fc.constantFrom(
  ...[
    'sw-1',
    'sw-rack 5',
    'gw-1',
    'Staff',
    'VLAN 20',
    '20',
    '1-12',
    '1..4',
    '=',
    ',',
    '-',
    '..',
    '{',
    '}',
    '[',
    '"',
    ';',
    '#',
  ],
  ...[
    '10.20.20.5',
    '10.20.20.0/24',
    '/33',
    '2001:db8::1',
    '::',
    '00:00:5e:00:53:01',
    'tcp 443',
    'udp',
    '5000-5010',
  ],
  ...[
    '\n',
    '\t',
    ' ',
    '\u0000',
    '\\',
    '0',
    '-1',
    '65536',
    '99999999999999999999',
    '1e9',
    'NaN',
    '٣',
    '𝟙',
    'x'.repeat(90),
  ],
  ...['the Internet', 'any', 'all', 'none', 'rear', 'front', 'null', '{}', 'dhcp-range=', 'ip saddr', 'IN A'],
);
/** A file with something put in, taken out or put twice, here and there. */
const damaged = fc
  .tuple(
    fc.constantFrom(...files),
    fc.array(fc.tuple(fc.nat(), fc.nat(30), fc.nat(2), word), { maxLength: 8 }),
  )
  .map(([file, changes]) =>
    changes.reduce((text, [at, length, how, put]) => {
      const from = at % (text.length + 1);
      const [before, middle, rest] = [
        text.slice(0, from),
        text.slice(from, from + length),
        text.slice(from + length),
      ];
      return `${before}${[put, '', middle + middle][how]!}${rest}`;
    }, file),
  );
const line = fc
  .tuple(fc.array(word, { minLength: 1, maxLength: 6 }), fc.constantFrom('', ' '))
  .map(([words, between]) => words.join(between));
const pasted = fc.oneof(line, damaged);

function refusedOr(what: string, read: () => unknown): void {
  try {
    read();
  } catch (error) {
    if (!(error instanceof Refusal)) throw new Error(`${what}: ${String(error)}`, { cause: error });
    expect(error.message.replace(/“[^”]*”|\(.*\)/gs, '')).not.toMatch(/undefined|\[object/);
  }
}

const readers: Readonly<Record<string, (text: string) => unknown>> = {
  cables: (text) => typedCables(plan, text),
  'what a port carries': (text) => typedCarried(plan, text),
  'tagged VLANs': (text) => typedTagged(plan, text),
  ports: typedMatches,
  'a port': (text) => typedBoxPort(plan, text),
  'who joins': (text) => typedEntry(plan, text),
  'who sends': (text) => typedSender(plan, text),
  'who receives': (text) => typedReceiver(plan, text),
  'what for': (text) => typedWanted(plan, text),
  find: (text) => findInPlan(plan, text),
  'a plan file': readPlanFile,
};

test('a line or a file is read or refused in words', () => {
  fc.assert(
    fc.property(pasted, pasted, (text, other) => {
      for (const [what, read] of Object.entries(readers)) refusedOr(what, () => read(text));
      for (const kind of ['cable', 'box', 'uplink', 'taken'] as const)
        refusedOr(kind, () => typedFault(plan, kind, text, other));
      refusedOr('what was found', () => foundAgainst(plan, [{ ...readFound(text), device: null } as never]));
      kindOfFile('x', text);
      for (const { id } of fileKinds)
        if (id !== 'table') refusedOr(id, () => readAs(id as Exclude<FileKind, 'table'>, text));
    }),
    { numRuns: runs(300), seed: 6 },
  );
});

test('every row of a table is good, mended or refused with why, whatever stands in its cells', () => {
  const tables = tablesOf(plan).map(({ head, rows }) =>
    [head, ...rows(TODAY).slice(0, 12)].map((row) => [...row]),
  );
  const cells = fc
    .tuple(
      fc.constantFrom(...tables),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.oneof(word, line)), { maxLength: 10 }),
    )
    .map(([table, changes]) => {
      const now = table.map((row) => [...row]);
      for (const [at, column, text] of changes) {
        const row = now[at % now.length]!;
        row[column % row.length] = text;
      }
      return now;
    });
  fc.assert(
    fc.property(cells, fc.constantFrom(...tableKinds), (rows, { id }) => {
      const asked = { kind: id, title: id, cells: rows, from: 1, notes: [], order: null, leftOut: false };
      const { tables: read } = finish(importing(plan, [asked], 'p1x'));
      for (const { verdict, why } of read.flatMap(({ rows: all }) => all)) {
        expect(why.join(' ')).not.toMatch(/undefined|\[object/);
        if (verdict === 'refused') expect(why.join('')).not.toBe('');
      }
    }),
    { numRuns: runs(300), seed: 6 },
  );
});
