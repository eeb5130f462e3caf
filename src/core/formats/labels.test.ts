import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readPlanFile } from './plan-file';
import { labelGrids, labelKinds, labelsOf, pageSizes, placeOnSheet } from './labels';

const demo = (name: string) => readPlanFile(readFileSync(path.join('demo', `${name}.json`), 'utf8'));
const clinic = demo('2-clinic');

test.each(labelGrids.map((grid) => [grid.title, grid] as const))(
  'no label of %s lies on another or beside the page',
  (_, grid) => {
    const [width, height] = pageSizes[grid.page];
    const places = grid.columns * grid.rows;
    const seen = new Set<string>();
    for (let index = 0; index < 2 * places; index++) {
      const { sheet, x, y } = placeOnSheet(grid, index, 3);
      expect(sheet).toBe(Math.floor((index + 3) / places));
      expect(x >= 0 && y >= 0 && x + grid.width <= width + 0.01 && y + grid.height <= height + 0.01).toBe(
        true,
      );
      seen.add(`${sheet} ${x.toFixed(2)} ${y.toFixed(2)}`);
    }
    expect(seen.size).toBe(2 * places);
    expect(grid.width * grid.columns + grid.gap * (grid.columns - 1) + grid.left).toBeLessThanOrEqual(
      width + 0.01,
    );
  },
);

test('every box, port, cable end and outlet has one label, with both numbers, code and colour', () => {
  const ports = labelsOf(clinic, 'ports');
  expect(new Set(ports.map(({ path: at }) => at)).size).toBe(ports.length);
  const port = ports.find(({ big }) => big === 'sw-rack 9')!;
  const servers = [...clinic.vlan.values()].find(({ name }) => name === 'Servers')!;
  expect(port).toMatchObject({
    colour: servers.colour,
    lines: expect.arrayContaining(['SV Servers, VLAN 30']),
  });
  expect(labelsOf(clinic, 'cables')).toHaveLength(2 * clinic.cable.size);
  const ends = labelsOf(clinic, 'cables').filter(({ lines }) => lines.includes('to sw-rack 1'));
  expect(ends.map(({ big }) => big)).toEqual(['gw-1 2']);
  expect(labelsOf(clinic, 'outlets').every(({ big }) => big.startsWith('panel'))).toBe(true);
  const [box] = [...clinic.device.values()].filter(({ name }) => name === 'sw-kennels');
  expect(labelsOf(clinic, 'boxes', box!.id).map(({ big }) => big)).toEqual(['sw-kennels']);
  expect(labelsOf(clinic, 'ports', box!.id).every(({ big }) => big.startsWith('sw-kennels '))).toBe(true);
  expect(labelsOf(clinic, 'cables', box!.id).length).toBeLessThan(2 * clinic.cable.size);
  const indexed = [...clinic.port.values()].find(({ index }) => index !== null);
  if (indexed)
    expect(
      labelsOf(clinic, 'ports', indexed.device).some(({ lines }) =>
        lines.includes(`inside ${indexed.index}`),
      ),
    ).toBe(true);
  for (const kind of labelKinds)
    expect(JSON.stringify(labelsOf(clinic, kind))).not.toMatch(/kept|password|key/i);
});
