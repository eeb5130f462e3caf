import fc from 'fast-check';
import {
  carriedText,
  describePorts,
  fillPattern,
  isPassive,
  portsIn,
  portsOf,
  rangeText,
} from '../../model/wiring';
import { buildGear, damagedGear, soundGear } from '../../testing/gear';
import { withRecord } from '../../plan';
import { runs } from '../../testing/runs';
import { done, emptySite } from '../../testing/plans';
import { readPortRows, typedCarried } from './port-rows';
import { named, port, vlan, add, cupboard } from '../../testing/cupboard';

describe('port numbers as people type them', () => {
  const one = add(emptySite(), 'switch-24p', 'sw');
  const ports = portsOf(one, named(one, 'sw').id);
  test('a list of ranges, in order, each once, and what it means', () => {
    const chosen = portsIn('9, 1-4,3,12', ports);
    expect(chosen.map((item) => item.number)).toEqual([1, 2, 3, 4, 9, 12]);
    expect(rangeText(chosen)).toBe('1-4, 9, 12');
    expect(describePorts(chosen, ports)).toBe('6 ports, none of the fibre ones, with PoE');
    expect(describePorts(portsIn('24-26', ports), ports)).toBe('3 ports, 2 of them fibre, 1 with PoE');
  });
  test.each([
    ['1-4,x', '“x” in “1-4,x” is not a port or a range'],
    ['', 'is not a port or a range'],
    ['4-1', '“4-1” runs backwards; write 1-4'],
    ['29', 'There is no port 29; this box has ports 1–28'],
    ['0', 'There is no port 0'],
  ])('%s is refused with the place', (text, why) => expect(() => portsIn(text, ports)).toThrow(why));
  test('what rangeText writes, portsIn reads', () => {
    fc.assert(
      fc.property(fc.subarray(ports.slice(1), { minLength: 1 }), (some) => {
        expect(portsIn(rangeText(some), ports)).toEqual(some);
      }),
    );
  });
  test.each([
    ['ge{n}', 7, 'ge7'],
    ['{24-n}', 7, '17'],
    ['0/{n-1}', 1, '0/0'],
    ['{n+100}', 3, '103'],
    ['{x}', 1, null],
    ['{n-5}', 1, null],
    ['a}', 1, null],
  ])('the pattern %s at port %i gives %s', (pattern, number, filled) =>
    expect(fillPattern(pattern, number)).toBe(filled),
  );
});

describe('pasted rows of ports', () => {
  const plan = cupboard();
  const read = (...lines: string[][]) => readPortRows(plan, lines);
  const vid = (purpose: string) => String(vlan(plan, purpose).vid);
  test('what a port is to carry, in the ways people write it', () => {
    const cam = vlan(plan, 'cameras').id;
    const management = vlan(plan, 'management').id;
    expect(typedCarried(plan, vid('cameras'))).toEqual({ role: 'access', vlan: cam });
    expect(typedCarried(plan, `access ${vid('cameras')} CM`)).toEqual({ role: 'access', vlan: cam });
    expect(typedCarried(plan, `Voice ${vid('cameras')}`)).toEqual({ role: 'voice', vlan: cam });
    expect(
      typedCarried(plan, `trunk ${vid('cameras')}+${vid('staff')} untagged ${vid('management')}`),
    ).toEqual({
      role: 'trunk',
      vlan: management,
      taggedMode: 'list',
      tagged: [cam, vlan(plan, 'staff').id].sort(),
    });
    expect(typedCarried(plan, 'trunk all')).toEqual({
      role: 'trunk',
      vlan: null,
      taggedMode: 'all',
      tagged: [],
    });
    expect(typedCarried(plan, 'parked')).toEqual({ role: 'parked' });
    expect(typedCarried(plan, `access + voice ${vid('staff')}`)).toEqual({
      role: 'voice',
      vlan: vlan(plan, 'staff').id,
    });
    expect(() => typedCarried(plan, 'access 999')).toThrow('“999” is no segment of this site');
  });
  test('what a port carries is read back as just that', () => {
    const seen = new Set<string>();
    fc.assert(
      fc.property(damagedGear, fc.nat(), (damages, n) => {
        const site = buildGear(damages, soundGear());
        const told = [...site.port.values()].filter(
          ({ device, number, defective, role, untagged, voice: phones }) =>
            number > 0 &&
            !defective &&
            !isPassive(site.device.get(device)!.kind) &&
            (role === 'trunk' ||
              role === 'uplink' ||
              (untagged !== null && (role === 'access' || phones !== null))),
        );
        const before = told[n % told.length]!;
        const text = carriedText(site, before);
        const off = done(site, 'assignPorts', { ports: [before.id], role: 'undecided' });
        const again = done(off, 'assignPorts', { ports: [before.id], ...typedCarried(off, text) });
        const { role, untagged, tagged, taggedMode, voice } = before;
        expect(again.port.get(before.id)).toMatchObject({ role, untagged, tagged, taggedMode, voice });
        seen.add(before.role);
      }),
      { numRuns: runs(100) },
    );
    expect([...seen].sort()).toEqual(['access', 'trunk', 'uplink', 'voice']);
  });
  test('nothing that is written is passed over', () => {
    for (const text of [
      `${vid('staff')} ${vid('cameras')}`,
      `voice ${vid('staff')} ${vid('cameras')}`,
      `trunk 10 untagged ${vid('staff')} x`,
    ])
      expect(() => typedCarried(plan, text)).toThrow(/ is no segment of this site/);
  });
  test('good rows are offered beside the refused ones, each with its reason', () => {
    const rows = read(
      ['Label', 'Box', 'Ports', 'VLAN'],
      ['desks', 'SW-A', '5-7', vid('staff')],
      ['', 'sw-a', '5-7,x', vid('staff')],
      ['', 'sw-z', '1', vid('staff')],
      ['', 'sw-a', '8', '4000'],
      ['', 'sw-a', '', ''],
    );
    expect(rows.map((row) => row.why)).toEqual([
      null,
      expect.stringContaining('“x” in “5-7,x”'),
      'There is no box “sw-z”.',
      expect.stringContaining('“4000” is no segment'),
      'The column ports is empty.',
    ]);
    const next = done(plan, 'importPorts', { rows: rows[0]!.sets });
    expect(port(next, 'sw-a', 6)).toMatchObject({
      role: 'access',
      untagged: vlan(plan, 'staff').id,
      label: 'desks',
    });
  });
  test('a label alone is a row, of a panel too; what is so already sets nothing', () => {
    const paneled = add(plan, 'panel-24', 'pp');
    const rows = readPortRows(paneled, [
      ['box', 'port', 'label'],
      ['pp', '3', '-X1'],
      ['sw-a', '5', '+A2'],
    ]);
    const next = done(paneled, 'importPorts', { rows: rows.flatMap(({ sets }) => sets) });
    expect([port(next, 'pp', 3).label, port(next, 'sw-a', 5)]).toEqual([
      '-X1',
      { ...port(paneled, 'sw-a', 5), label: '+A2' },
    ]);
    const [again, carrying] = readPortRows(next, [
      ['box', 'port', 'carries', 'label'],
      ['pp', '3', '', '-X1'],
      ['pp', '4', vid('staff'), ''],
    ]);
    expect(again).toMatchObject({ why: null, sets: [] });
    expect(carrying!.why).toBe('pp 4 only joins cables; the port it leads to carries the VLANs.');
  });
  test('where two ports have one number by mistake, a row changes neither', () => {
    const [first, second] = [1, 2].map((number) => port(plan, 'sw-a', number));
    const twice = withRecord(plan, 'port', second!.id, { ...second!, number: 1, label: 'other' });
    const as = carriedText(plan, second!);
    expect(readPortRows(twice, [['sw-a', '1', 'trunk all', 'new']])).toEqual([
      expect.objectContaining({ sets: [], why: expect.stringMatching(/^sw-a has 2 ports 1; which of them/) }),
    ]);
    for (const [carries, label] of [
      [as, 'other'],
      [carriedText(plan, first!), first!.label],
    ])
      expect(readPortRows(twice, [['sw-a', '1', carries!, label!]])).toEqual([
        expect.objectContaining({ sets: [], why: null }),
      ]);
  });
  test('a table with half the columns says which is missing', () => {
    expect(read(['Box', 'Port'], ['sw-a', '5'])[0]!.why).toBe('The column carries is missing.');
    expect(read(['sw-a', '5'])[0]!.why).toBe('The column carries is empty.');
  });
});
