import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { formatAddress } from '../address';
import { readPlanFile } from '../formats';
import { siteTests } from '../commission';
import { type Body, type Written, logOf } from '../log';
import { nextFreeAddress } from '../model/hosts';
import { ssidsOf } from '../model/wireless';
import { type Plan, finish, portTitle, subnetsOf, vlansOf, withRecord } from '../plan';
import { questionText, whatIf } from '../rehearse';
import { deviceNamed } from '../testing/gear';
import { drawPlan, withEveryKind } from '../testing/kinds';
import { emptySite } from '../testing/plans';
import { runs } from '../testing/runs';
import { type Block, type Book, bookChapters, cellText, writeBook } from '.';

const TODAY = '2026-12-01';
const demo = (name: string): Plan => readPlanFile(readFileSync(`demo/${name}.json`, 'utf8'));
const creamery = demo('3-creamery');
const bookOf = (plan: Plan, entries: readonly Written[] = [], leftOut: readonly string[] = []): Book =>
  finish(writeBook({ plan, log: logOf(entries), revision: 7, today: TODAY, map: null }, new Set(leftOut)));

function wordsOf(block: Block): string[] {
  switch (block.kind) {
    case 'list':
      return [...block.items];
    case 'facts':
      return block.rows.flat();
    case 'table':
      return block.rows.flatMap((row) => row.map(cellText));
    case 'drawing':
      return [block.drawing.title];
    case 'signatures':
      return block.of.flatMap(({ name, about }) => [name, about]);
    default:
      return [block.text];
  }
}
const chapter = ({ chapters }: Book, id: string): readonly Block[] =>
  chapters.find((one) => one.id === id)?.blocks ?? [];
const words = (book: Book, id: string): string[] => chapter(book, id).flatMap(wordsOf);
const rowsOf = (book: Book, id: string, label: string): string[][] =>
  chapter(book, id).flatMap((block) =>
    block.kind === 'table' && block.label === label ? block.rows.map((row) => row.map(cellText)) : [],
  );
const entry = (id: string, body: Body, revision = 7): Written => ({
  id,
  author: 'Ada',
  at: '2026-11-30T09:00:00.000Z',
  revision,
  body,
});

test.each(['1-row-house', '2-clinic', '3-creamery'])('nothing that %s records is missing', (name) => {
  const plan = demo(name);
  const book = bookOf(plan);
  const addresses = new Set(words(book, 'addresses'));
  for (const { address } of plan.address.values()) expect(addresses).toContain(formatAddress(address));
  const segments = new Set(words(book, 'segments'));
  for (const vlan of vlansOf(plan)) expect(segments).toContain(`${vlan.vid} ${vlan.code}`);
  const boxes = new Set(words(book, 'ports'));
  for (const { device } of plan.box.values()) expect(boxes).toContain(plan.device.get(device)!.name);
  const cables = words(book, 'cables').join('\n');
  for (const { from, to } of plan.cable.values())
    for (const end of [from, to]) expect(cables).toContain(portTitle(plan, plan.port.get(end)!));
  const air = new Set(words(book, 'wireless'));
  for (const ssid of ssidsOf(plan)) expect(air).toContain(ssid.name);
  const out = new Set(words(book, 'internet'));
  for (const uplink of plan.uplink.values()) expect(out).toContain(uplink.name);
  const asked = new Set(words(book, 'tests'));
  for (const question of plan.question.values()) expect(asked).toContain(questionText(plan, question));
});

test('a table has a cell for each column and no column in which nothing stands', () => {
  fc.assert(
    fc.property(fc.nat(), (seed) => {
      const plan = withEveryKind(drawPlan(seed), seed);
      for (const { blocks } of bookOf(plan, [], ['tests', 'when']).chapters)
        for (const block of blocks) {
          if (block.kind !== 'table') continue;
          block.columns.forEach((_, i) =>
            expect(block.rows.some((row) => cellText(row[i]!) !== '')).toBe(true),
          );
          for (const row of block.rows) expect(row).toHaveLength(block.columns.length);
        }
    }),
    { numRuns: runs(40) },
  );
});

test('a site of which nothing is known has a book that says so', () => {
  const book = bookOf(emptySite());
  expect(book.state).toBe('As planned');
  expect(words(book, 'plain')).toContain('No way to the Internet is planned.');
  expect(chapter(book, 'wireless')).toEqual([]);
  expect(words(book, 'policy')).toEqual(['No zones are recorded: nothing is filtered inside.']);
});

test('chapters that are left out are not in it, and each is there without the others', () => {
  const all = bookOf(creamery).chapters;
  // The map needs an arrangement.
  expect(all.map(({ id }) => id)).toEqual(bookChapters.map(({ id }) => id).filter((id) => id !== 'map'));
  const one = bookOf(
    creamery,
    [],
    bookChapters.map(({ id }) => id).filter((id) => id !== 'cables'),
  );
  expect(one.chapters).toEqual(all.filter(({ id }) => id === 'cables'));
});

test('tests come with their results, defects while they are open, and signatures for what they are', () => {
  const test = siteTests(creamery, TODAY).rounds[0]!.tests[0]!;
  const result = {
    kind: 'test',
    key: test.key,
    at: 'sw-a 1',
    does: test.does,
    expects: test.expects,
    outcome: 'differs',
    reading: '169.254.3.3',
    note: '',
    photos: [] as string[],
  } as const;
  const sign = (role: 'installer' | 'customer', name: string) =>
    ({ kind: 'signOff', role, name, day: '2026-11-30', signature: 'M0 0L9 9', note: '' }) as const;
  const defect = (text: string) =>
    ({ kind: 'defect', text, about: null, run: null, photos: [] as string[] }) as const;
  const entries = [
    entry('test00001', result),
    entry('defect0001', defect('lid of the cabinet is loose')),
    entry('defect0002', defect('label missing')),
    entry('mended0001', {
      kind: 'defectState',
      defect: 'defect0002',
      state: 'mended',
      note: '',
      photos: [],
    }),
    entry('sign000001', sign('installer', 'Ada Novak')),
  ];
  const book = bookOf(creamery, entries);
  const row = rowsOf(book, 'tests', 'Tests').find((cells) => cells[1] === test.does);
  expect(row?.at(-1)).toBe('differs, 169.254.3.3, 2026-11-30 Ada');
  expect(rowsOf(book, 'tests', 'Tests').at(-1)?.at(-1)).toBe('not tried');
  expect(words(book, 'defects')).toContain('lid of the cabinet is loose');
  expect(words(book, 'defects')).not.toContain('label missing');
  expect([book.state, book.signed]).toEqual(['As planned', ['Ada Novak, installer, 2026-11-30']]);
  const both = [...entries, entry('sign000002', sign('customer', 'Mr Okoro'))];
  expect(bookOf(creamery, both).state).toBe('As built');
  const earlier = both.map((one) => ({ ...one, revision: 5 }));
  expect(bookOf(creamery, earlier).state).toBe('As planned; as built at change 5');
});

test('what is lost with a box is what the rehearsal says, and the next address is the one that would be given', () => {
  const book = bookOf(creamery);
  const lost = new Map(
    rowsOf(book, 'when', 'What is lost when a box dies').map((row) => [row[0], row.at(-1)!]),
  );
  for (const name of ['sw-a', 'sw-c']) {
    const device = deviceNamed(creamery, name);
    const { cutOff } = whatIf(creamery, [{ kind: 'box', device: device.id }], TODAY);
    expect(cutOff.length).toBeGreaterThan(0);
    const said = lost.get(name)!;
    const [, more = '0'] = / and (\d+) more$/.exec(said) ?? [];
    const named = said.replace(/ and \d+ more$/, '').split(', ');
    for (const one of named) expect(cutOff.map((other) => other.name)).toContain(one);
    expect(named.length + Number(more)).toBe(cutOff.length);
  }
  const next = new Map(rowsOf(book, 'when', 'Free for a new device').map((row) => [row[1], row.at(-1)]));
  for (const vlan of vlansOf(creamery)) {
    const [subnet] = subnetsOf(creamery, vlan.id);
    const free = subnet && nextFreeAddress(creamery, subnet, 'computer', 'static');
    if (free && next.has(vlan.name)) expect(next.get(vlan.name)).toBe(formatAddress(free));
  }
  expect(next.size).toBeGreaterThan(5);
});

test('where a secret is kept is said, never a secret', () => {
  const [ssid] = ssidsOf(creamery);
  const plan = withRecord(creamery, 'ssid', ssid!.id, {
    ...ssid!,
    security: 'wpa2-wpa3-personal',
    keySet: '2026-05-02',
    keyKept: 'envelope 4 in the office safe',
  });
  const rows = rowsOf(bookOf(plan), 'secrets', 'Where secrets are kept');
  expect(rows).toContainEqual([`key of “${ssid!.name}”`, '2026-05-02', 'envelope 4 in the office safe']);
  const open = withRecord(plan, 'ssid', ssid!.id, { ...plan.ssid.get(ssid!.id)!, security: 'owe' });
  expect(rowsOf(bookOf(open), 'secrets', 'Where secrets are kept').map(([what]) => what)).not.toContain(
    `key of “${ssid!.name}”`,
  );
});
