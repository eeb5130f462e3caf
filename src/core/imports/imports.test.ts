import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { formatAddress, formatPrefix } from '../address';
import { openFiles, readPlanFile, tablesOf } from '../formats';
import { passing, zonesOf } from '../model/policy';
import { type Plan, Refusal, applySteps, decodeStep, finish, vlansOf, withRecord } from '../plan';
import { dnsmasqSample, nftSample, zoneSample } from '../testing/files';
import { drawnPlan } from '../testing/kinds';
import { emptySite } from '../testing/plans';
import { runs } from '../testing/runs';
import { type AskedTable, type Import, importing, kindOfFile, kindOfTable, readAs } from '.';

const demo = (name: string): Plan => readPlanFile(readFileSync(`demo/${name}.json`, 'utf8'));
const creamery = demo('3-creamery');
const clinic = demo('2-clinic');
const WRITTEN = { today: '2026-12-01', revision: 1 };
const asked = (
  kind: string,
  cells: readonly (readonly string[])[],
  more: Partial<AskedTable> = {},
): AskedTable => ({
  kind,
  title: kind,
  cells,
  notes: [],
  order: null,
  leftOut: false,
  ...more,
});
const bring = (plan: Plan, ...tables: AskedTable[]): Import => finish(importing(plan, tables, 'imp'));
const table = (plan: Plan, id: string) => {
  const { head, rows } = tablesOf(plan).find((one) => one.id === id)!;
  return [head, ...rows(WRITTEN.today)];
};
const after = (plan: Plan, { steps }: Import): Plan => {
  const applied = applySteps(plan, steps.map(decodeStep));
  if (!applied.ok) throw new Error('the steps do not fit');
  return applied.plan;
};
const verdicts = ({ tables }: Import) =>
  tables.flatMap(({ rows }) => rows.map(({ verdict, why, cells }) => [verdict, ...why, ...cells].join('|')));
const file = (plan: Plan, path: string): string =>
  openFiles(plan)
    .find((one) => one.path === path)!
    .text(WRITTEN);

test.each(['segments', 'addresses', 'ports', 'cables'])(
  'what leaves as a table of %s says nothing new when it comes back',
  (id) => {
    for (const plan of [clinic, creamery, demo('1-row-house')]) {
      const cells = table(plan, id);
      expect(kindOfTable(cells)).toBe(id);
      const read = bring(plan, asked(id, cells));
      expect(verdicts(read).filter((one) => !one.startsWith('there'))).toEqual([]);
      expect(read.steps).toEqual([]);
    }
  },
);

test('also on drawn sites nothing is changed by what the plan says itself, and nothing is ever taken away', () => {
  fc.assert(
    fc.property(drawnPlan, (plan) => {
      for (const id of ['segments', 'addresses', 'cables']) {
        const read = bring(plan, asked(id, table(plan, id)));
        for (const { before, after: now } of read.steps)
          expect([before !== null && now === null]).toEqual([false]);
      }
      expect(bring(plan, asked('ports', table(plan, 'ports'))).steps).toEqual([]);
      const { steps } = bring(plan, asked('addresses', table(plan, 'addresses')));
      expect(steps.filter(({ before }) => before !== null)).toEqual([]);
    }),
    { numRuns: runs(40) },
  );
});

test('of segments with one VLAN id that with the code, the name or the network is meant, and none is guessed', () => {
  const [first, second] = vlansOf(clinic);
  const twice = withRecord(clinic, 'vlan', second!.id, { ...second!, vid: first!.vid });
  const rows = table(twice, 'segments');
  expect(bring(twice, asked('segments', rows)).steps).toEqual([]);
  const named = bring(
    twice,
    asked('segments', [
      ['vlan', 'name', 'devices'],
      [String(first!.vid), second!.name, '77'],
    ]),
  );
  expect(after(twice, named).vlan.get(second!.id)!.devices).toBe(77);
  const unnamed = bring(
    twice,
    asked('segments', [
      ['vlan', 'devices'],
      [String(first!.vid), '77'],
    ]),
  );
  expect([unnamed.steps, verdicts(unnamed)]).toEqual([
    [],
    [expect.stringMatching(/^refused\|VLAN \d+ may be .+ or .+; write its code/)],
  ]);
});

test('a way of fixing an address that is none is told; a row without anything is no host', () => {
  const head = ['host', 'address', 'kind', 'assignment', 'note'];
  const read = bring(
    clinic,
    asked('addresses', [
      head,
      ['new-1', '10.20.20.99', 'camera', 'by magic', ''],
      ['', '', '', '', 'empty yet'],
    ]),
  );
  expect(verdicts(read)).toEqual([
    expect.stringMatching(/^repaired\|fixed by “by magic” is none of the ways, taken as /),
    'there||||',
  ]);
});

test('how an address is fixed leaves in a schedule and comes in at another site', () => {
  const empty = emptySite();
  const tables = ['segments', 'addresses'].map((id) => asked(id, table(clinic, id)));
  const made = after(empty, bring(empty, ...tables));
  const ways = (plan: Plan) =>
    [...plan.address.values()]
      .filter(({ gateway }) => !gateway)
      .map((one) => `${formatAddress(one.address)} ${one.assignment}`)
      .sort();
  const brought = new Set(ways(made));
  expect(brought.size).toBeGreaterThan(30);
  for (const one of brought) expect(ways(clinic)).toContain(one);
});

test('an empty site gets the segments and the addresses of another from its tables', () => {
  const empty = emptySite();
  const read = bring(
    empty,
    asked('addresses', table(clinic, 'addresses')),
    asked('segments', table(clinic, 'segments')),
  );
  const made = after(empty, read);
  const told = (plan: Plan) =>
    vlansOf(plan).map(({ vid, code, name, purpose, devices, growth, internet }) =>
      [vid, code, name, purpose, devices, growth, internet].join(' '),
    );
  const own = new Set(told(clinic));
  expect(told(made).filter((one) => own.has(one))).toHaveLength(own.size);
  const networks = (plan: Plan) => [...plan.subnet.values()].map(({ prefix }) => formatPrefix(prefix));
  expect(networks(made)).toEqual(expect.arrayContaining(networks(clinic)));
  const refused = read.tables[0]!.rows.filter(({ verdict }) => verdict === 'refused');
  const fixed = (plan: Plan) =>
    [...plan.address.values()].filter(({ gateway }) => !gateway).map(({ address }) => formatAddress(address));
  const missing = fixed(clinic).filter((one) => !fixed(made).includes(one));
  // What is wrong in the plan is refused, each with why; everything else is there.
  expect(missing.length).toBeLessThanOrEqual(refused.length);
  expect(refused.every(({ why }) => why.length > 0)).toBe(true);
  expect(missing.length).toBeLessThan(5);
});

test('columns are guessed without a head, can be put right, and a table can be left out', () => {
  const cells = [
    ['x', '10.20.30.77', 'scanner-7', '02:00:5e:00:53:77'],
    ['y', '10.20.30.78', 'scanner-8', ''],
  ];
  const guessed = bring(clinic, asked('addresses', cells)).tables[0]!;
  expect(guessed.columns.order).toEqual(['name', 'address', 'note', 'mac']);
  const right = bring(clinic, asked('addresses', cells, { order: ['note', 'address', 'name', 'mac'] }));
  expect(right.tables[0]!.rows.map(({ cells: [name] }) => name)).toEqual(['scanner-7', 'scanner-8']);
  const made = after(clinic, right);
  expect([...made.device.values()].some(({ name }) => name === 'scanner-8')).toBe(true);
  const left = bring(clinic, asked('addresses', cells, { leftOut: true }));
  expect([left.steps, left.tables[0]!.rows]).toEqual([[], guessed.rows]);
});

test('each row that is wrong is refused with what is wrong, and the others come in', () => {
  const said = (kind: string, head: string[], ...rows: string[][]) =>
    bring(creamery, asked(kind, [head, ...rows])).tables[0]!.rows.map(
      ({ verdict, why }) => `${verdict}: ${why.join('; ')}`,
    );
  expect(
    said(
      'segments',
      ['VLAN', 'Name', 'Network', 'For'],
      ['5000', 'Far', '', ''],
      ['170', 'Visitors', '10.44.170.0/24', 'guests'],
      ['', 'Workshop', '10.44.171.9/24', 'zzz'],
      ['180', 'Twice', '10.44.170.0/25', 'office'],
      ['181', 'Odd', 'about 20', 'office'],
      ['', '', '', 'office'],
      ['110', 'Management', '', ''],
      ['120', 'Desks', '', ''],
    ),
  ).toEqual([
    'refused: “5000” is no VLAN id; write a number from 1 to 4094',
    'good: ',
    expect.stringMatching(
      /^repaired: 10\.44\.171\.9\/24 has host bits, read as 10\.44\.171\.0\/24; nobody can tell what “zzz” is for; it does not say what it is for, taken as staff without the Internet; VLAN id \d+ given$/,
    ),
    expect.stringMatching(/^refused: 10\.44\.170\.0\/25 .*10\.44\.170\.0\/24/),
    'refused: “about 20” is no network; write one like 10.20.30.0/24',
    'refused: it has neither VLAN id nor name nor network',
    'there: ',
    'good: changes name from Office to Desks',
  ]);
  expect(
    said(
      'cables',
      ['From', 'From port', 'To', 'To port', 'Type', 'Length'],
      ['sw-nowhere', '1', 'sw-a', '9', '', ''],
      ['sw-a', '99', 'sw-b', '1', '', ''],
      ['sw-a', '', '', '', '', ''],
    ),
  ).toEqual([
    'refused: There is no device “sw-nowhere”; write its name as it stands in the plan.',
    expect.stringMatching(/^refused: There is no port 99 on sw-a/),
    'refused: it does not say where it leads to',
  ]);
  expect(
    said(
      'ranges',
      ['range', 'lease'],
      ['10.99.0.1-10.99.0.9', '12 h'],
      ['10.44.120.20 - 10.44.120.21', 'soon'],
      ['many', ''],
    ),
  ).toEqual([
    'refused: 10.99.0.1 lies in no subnet of this site',
    'refused: “soon” is no lease time; write one like 12 h',
    'refused: “many” is no range; write one like 10.0.0.100–10.0.0.199',
  ]);
  expect(
    said('addresses', ['name', 'address', 'mac'], ['thing', '', ''], ['thing', '192.0.2.9', '']),
  ).toEqual(['refused: it has no address; write one', 'refused: 192.0.2.9 lies in no subnet of this site']);
  expect(said('ports', ['box', 'port', 'carries'], ['sw-a', '5', 'access 4000'])[0]).toMatch(
    /^refused: “4000” is no segment of this site/,
  );
});

test('too many rows are refused before any is read', () => {
  const cells = Array.from({ length: 20_001 }, (_, i) => [`h-${i}`, '10.0.0.1']);
  expect(() => bring(clinic, asked('addresses', cells))).toThrow(
    new Refusal(
      'bad-input',
      'There are 20,001 rows; at most 20,000 are brought in at once. Cut the table up.',
      [],
      ['rows'],
    ),
  );
});

const readBack = (plan: Plan, path: string) => {
  const text = file(plan, path);
  const kind = kindOfFile(path, text);
  if (kind === 'table') throw new Error(`${path} is taken for a table`);
  const { tables, leftOut } = readAs(kind, text);
  return { kind, leftOut, read: bring(plan, ...tables.map((one) => asked(one.kind, one.cells))) };
};

test.each([
  ['names/hosts', 'hosts'],
  ['names/clinic.example.net.zone', 'zone'],
  ['gw-1/kea-dhcp4.conf', 'kea'],
  ['gw-1/dnsmasq.conf', 'dnsmasq'],
])('what is written to %s is read back as %s, and is there already', (path, kind) => {
  const { kind: found, read } = readBack(clinic, path);
  expect(found).toBe(kind);
  const others = verdicts(read).filter((one) => !one.startsWith('there'));
  expect(others).toEqual([]);
  expect(read.tables.flatMap(({ rows }) => rows).length).toBeGreaterThan(3);
});

test('files as people have them: comments, tags, short forms, and what no plan says is listed', () => {
  const dnsmasq = readAs('dnsmasq', dnsmasqSample);
  expect(dnsmasq.tables.map(({ cells }) => cells.slice(1))).toEqual([
    [['10.20.20.100–10.20.20.150', '12h']],
    [
      ['printer-9', '10.20.20.9', '02:00:5E:00:53:01', 'reservation', 'by the door'],
      ['nas', '10.20.30.9', '', 'static', ''],
    ],
  ]);
  expect(dnsmasq.leftOut).toEqual([
    { line: 3, text: 'dhcp-range=10.20.40.0,static' },
    { line: 5, text: 'dhcp-host=02:00:5e:00:53:02,ignore' },
    { line: 7, text: 'server=192.0.2.53' },
  ]);
  const zone = readAs('zone', zoneSample);
  expect(zone.tables[0]!.cells.slice(1)).toEqual([
    ['nas', '10.20.30.9', '', '', 'storage'],
    ['nas', '2001:db8::9', '', '', ''],
  ]);
  expect(zone.leftOut.map(({ line }) => line)).toEqual([2, 4, 7, 8]);
  const hosts = readAs(
    'hosts',
    '127.0.0.1 localhost\n10.20.30.9\tnas.clinic.example.net nas # storage\nrubbish\n',
  );
  expect(hosts.tables[0]!.cells.slice(1)).toEqual([['nas', '10.20.30.9', '', '', 'storage']]);
  expect(hosts.leftOut.map(({ line }) => line)).toEqual([1, 3]);
  expect(() => readAs('kea', '{ "Dhcp4": ')).toThrow(/^The file is no JSON/);
  expect(() => readAs('kea', '{ "Dhcp4": { "subnet4": [ { "id": 1 } ] } }')).toThrow(
    /^The file is no configuration of Kea: Dhcp4\.subnet4\.0\.subnet/,
  );
});

test('what zones let through leaves as a ruleset and comes back as it is', () => {
  for (const plan of [clinic, creamery]) {
    const text = file(plan, 'gw-1/ruleset.nft');
    expect(kindOfFile('ruleset', text)).toBe('nft');
    const { tables } = readAs('nft', text);
    const read = bring(plan, ...tables.map((one) => asked(one.kind, one.cells)));
    const rows = read.tables[0]!.rows;
    expect(rows.filter(({ verdict }) => verdict === 'there').length).toBeGreaterThan(6);
    // Nothing more passes from zone to zone than before.
    const made = after(plan, read);
    for (const from of zonesOf(plan))
      for (const to of zonesOf(plan)) expect(passing(made, from, to)).toEqual(passing(plan, from, to));
  }
});

test('a ruleset as people write it: sets, variables, and what no cell says', () => {
  const { tables, leftOut } = readAs('nft', nftSample);
  expect(tables[0]!.cells.slice(1)).toEqual([
    ['vlan20', 'vlan30', 'tcp 22, tcp 8123', 'allow'],
    ['10.20.20.0/24', '10.20.50.0/24 | 10.20.60.0/24 | 10.20.70.0/24', 'tcp 554', 'allow'],
    ['10.20.20.10', '10.20.30.11', 'everything', 'deny'],
    ['10.20.40.7', '10.20.30.10', 'udp 53', 'allow'],
    ['vlan80', 'wan0', 'everything', 'allow'],
  ]);
  expect(leftOut.map(({ line }) => line)).toEqual([8, 9, 18, 19]);
  const read = bring(clinic, asked('ways', tables[0]!.cells));
  expect(read.tables[0]!.rows.map(({ verdict, why, cells }) => [verdict, cells.join(' > '), ...why])).toEqual(
    [
      ['there', 'Staff > Servers > tcp 22, tcp 8123 > allow'],
      ['good', 'Staff > Devices > tcp 554 > allow'],
      ['good', '10.20.20.10 > 10.20.30.11 > everything > deny', 'as a rule above the cells'],
      [
        'repaired',
        '10.20.40.7 > 10.20.30.10 > udp 53 > allow',
        'the service udp 53 is added',
        'as a rule above the cells',
      ],
      ['there', 'Guests > Internet > everything > allow'],
    ],
  );
});
