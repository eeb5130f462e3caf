import fc from 'fast-check';
import { formatAddress } from '../../address';
import { subnetOf, vlansOf } from '../../plan';
import { done, emptySite } from '../../testing/plans';
import { columnsOf, readRows } from '../../edit';
import { isDomain, nameProblem, proposeHostName, repairName } from './names';

const plan = done(emptySite({ domain: 'yard.example.net' }), 'addSegment', { purpose: 'iot' });
const subnet = subnetOf(plan, vlansOf(plan)[0]!.id, 4)!;

describe('host names', () => {
  test.each([
    ['pump 1', 'pump-1'],
    ['Küche', 'kuche'],
    ['-x-', 'x'],
    ['a.b.c', 'a'],
    ['12', 'host-12'],
    ['⅐', 'host-1-7'],
    ['1'.repeat(80), `host-${'1'.repeat(58)}`],
    ['***', null],
    ['ventil_ß', 'ventil-ss'],
  ])('%p is repaired to %p', (name, repaired) => expect(repairName(name)).toBe(repaired));
  test('every repair is allowed, and what is allowed needs none', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 90 }), (name) => {
        const repaired = repairName(name);
        if (repaired !== null) expect(nameProblem(repaired)).toBeNull();
      }),
    );
    for (const name of ['a', 'A1', 'x-y', 'a'.repeat(63)]) expect(nameProblem(name)).toBeNull();
    for (const name of ['', '-a', 'a-', 'a_b', 'a'.repeat(64), '1.2'])
      expect(nameProblem(name)).not.toBeNull();
  });
  test('domains are labels joined by dots', () => {
    expect(['', 'lan', 'a.example.net'].every(isDomain)).toBe(true);
    expect(['a..b', '-a.example.net', 'a b', `${'a'.repeat(64)}.net`].some(isDomain)).toBe(false);
  });
  test('the pattern counts on from what exists', () => {
    expect(proposeHostName(plan, subnet, 'sensor')).toBe('io-sensor-01');
    const more = done(plan, 'addHost', { subnet: subnet.id, kind: 'sensor' });
    expect(proposeHostName(more, subnet, 'sensor')).toBe('io-sensor-02');
  });
});

describe('pasted rows', () => {
  const held = done(plan, 'addHost', {
    subnet: subnet.id,
    name: 'boiler',
    address: '10.20.10.20',
    mac: '00:00:5E:00:53:01',
  });
  const read = (...rows: string[][]) => readRows(held, subnet, rows);
  test('columns are known by their heads in any order, or by what they hold', () => {
    expect(columnsOf([['MAC address', 'Hostname', 'what?', 'IP']])).toEqual({
      order: ['mac', 'name', null, 'address'],
      header: true,
    });
    expect(columnsOf([['a', '10.0.0.1', '00:00:5E:00:53:07', 'camera', 'left']])).toEqual({
      order: ['name', 'address', 'mac', 'kind', 'note'],
      header: false,
    });
  });
  test('a row without fault is good', () =>
    expect(read(['valve', '10.20.10.30', '00:00:5E:00:53:30', 'sensor'])).toMatchObject([
      { line: 1, verdict: 'good', why: [], name: 'valve' },
    ]));
  test('without a kind it is what usually stands in the segment of its address', () => {
    const cameras = done(held, 'addSegment', { purpose: 'cameras' });
    const there = subnetOf(cameras, vlansOf(cameras).at(-1)!.id, 4)!;
    const address = formatAddress((there.prefix.address as number) + 40);
    const rows = readRows(cameras, subnet, [
      ['gate', address],
      ['meter', '10.20.10.33'],
    ]);
    expect(rows.map(({ kind }) => kind)).toEqual(['camera', 'appliance']);
  });
  test('repairs are named', () => {
    const [row] = read(['name', 'address', 'mac', 'kind'], ['Valve 2', '.31', '00-00-5e-00-53-31', 'gizmo']);
    expect(row).toMatchObject({
      line: 2,
      verdict: 'repaired',
      name: 'valve-2',
      address: '10.20.10.31',
      mac: '00:00:5E:00:53:31',
      kind: 'other',
    });
    expect(row!.why).toHaveLength(4);
  });
  test.each([
    [['x', '10.20.10.20'], 'is boiler’s already'],
    [['x', '10.20.10.255'], 'network or broadcast'],
    [['x', '10.20.10.0'], 'network or broadcast'],
    [['x', '172.16.0.1'], 'in no subnet'],
    [['BOILER', '10.20.10.33'], 'taken in this domain'],
    [['x', '10.20.10.33', '00:00:5E:00:53:01'], 'is boiler’s already'],
    [['x', '10.20.10.33', '01:00:5E:00:53:01'], 'group address'],
    [['***', '10.20.10.33'], 'letters, digits'],
  ])('%p is refused: %s', (row, why) => {
    const [read1] = read(['name', 'address', 'mac'], row);
    expect(read1!.verdict).toBe('refused');
    expect(read1!.why.join()).toContain(why);
  });
  test('rows are checked against each other', () => {
    const rows = read(['a1', '10.20.10.40', '00:00:5E:00:53:40'], ['a1', '10.20.10.40', '00:00:5E:00:53:40']);
    expect(rows[0]!.verdict).toBe('good');
    expect(rows[1]!.why).toHaveLength(3);
  });
  test('rows without an address get different ones', () => {
    const rows = read(['name', 'address'], ['b1', ''], ['b2', '']);
    expect(rows.map((row) => row.address)).toEqual(['10.20.10.10', '10.20.10.11']);
  });
});
