import { needColumnsOf, readNeedRows, thingNamed } from './need-rows';

const table = (text: string) => text.split('\n').map((line) => line.split('\t'));

test('columns are known by their heads, in any order', () => {
  const cells = table('Room\tQty\tDevice\tWi-Fi?\nHall\t4\tcameras\t');
  expect(needColumnsOf(cells)).toEqual({ order: ['place', 'count', 'what', null], header: true });
  expect(readNeedRows(cells)).toMatchObject([
    { line: 2, verdict: 'good', thing: 'camera', count: 4, place: 'Hall', link: 'wired' },
  ]);
});

test('without a head they are known by what they hold', () => {
  const cells = table('desks\t12\tOffices\nlaptops\t8 x\tOffices\nHMI\t2\tLine 1');
  expect(needColumnsOf(cells)).toEqual({ order: ['what', 'count', 'place'], header: false });
  expect(readNeedRows(cells).map(({ thing, count, link }) => [thing, count, link])).toEqual([
    ['workstation', 12, 'wired'],
    ['laptop', 8, 'wireless'],
    ['operator-panel', 2, 'wired'],
  ]);
});

test('a row is mended where it can be and refused where nobody can tell how many', () => {
  const cells = table(
    'count\twhat\tgrowth\tconnected\n\tprinters\t\t\n3\tfrobs\tlots\tby pigeon\nmany\tcameras\t\t\n2\t\t\t\n100000\tscreens\t\t',
  );
  const rows = readNeedRows(cells);
  expect(rows.map(({ verdict }) => verdict)).toEqual(['repaired', 'repaired', 'refused', 'refused', 'good']);
  expect(rows[0]).toMatchObject({ count: 1, why: ['no number, taken as 1'] });
  expect(rows[1]!.why).toEqual([
    'nobody can tell what “frobs” is, taken as an appliance',
    '“by pigeon” is neither wired nor wireless, taken as wired',
    'growth “lots” is no percentage, left as usual',
  ]);
  expect(rows[2]!.why[0]).toMatch(/“many” is no number/);
  expect(rows[3]!.why[0]).toMatch(/does not say what/);
});

test('words of the trade are understood, and a kind is not taken for another', () => {
  expect(thingNamed('PLC cabinet')).toBe('controller');
  expect(thingNamed('safety PLC')).toBe('safety-controller');
  expect(thingNamed('NVR')).toBe('recorder');
  expect(thingNamed('IP phones')).toBe('telephone');
  expect(thingNamed('workstations')).toBe('workstation');
  expect(thingNamed('zebra')).toBeUndefined();
});
