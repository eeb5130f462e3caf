import { readFileSync } from 'node:fs';
import path from 'node:path';
import { accessWithVoice, parked, portsOf } from '../../model/wiring';
import { INK } from '../../model/segments';
import { clashesOf } from '../../model/wireless';
import { type Plan, withRecord } from '../../plan';
import { deviceNamed, portNamed } from '../../testing/gear';
import { emptySite } from '../../testing/plans';
import { readPlanFile } from '../plan-file';
import { type Shape, channelsDrawing, faceDrawing, matrixDrawing, svgOf } from '.';

const creamery = readPlanFile(readFileSync(path.join(process.cwd(), 'demo/3-creamery.json'), 'utf8'));
const set = (plan: Plan, name: string, number: number, fields: object): Plan => {
  const port = portNamed(plan, name, number);
  return withRecord(plan, 'port', port.id, { ...port, ...fields } as never);
};
const face = (plan: Plan, name: string) => faceDrawing(plan, deviceNamed(plan, name))!;
/** The shapes that lie within a port, whose number stands in its middle. */
function shapesAt(shapes: readonly Shape[], number: number): Shape[] {
  const label = shapes.find((shape) => shape.kind === 'text' && shape.text === String(number));
  if (label?.kind !== 'text') throw new Error(`port ${number} is not drawn`);
  return shapes.filter(
    (shape) =>
      shape.kind === 'box' &&
      shape.width < 60 &&
      Math.abs(shape.x + shape.width / 2 - label.x) < 17 &&
      Math.abs(shape.y + shape.height / 2 - (label.y - 4)) < 13,
  );
}
const fillsAt = (plan: Plan, name: string, number: number): string[] =>
  shapesAt(face(plan, name).shapes, number).flatMap((shape) =>
    shape.kind === 'box' && shape.fill !== null ? shape.fill : [],
  );

test('a face has every port once, by its printed number, and says in its title what each carries', () => {
  for (const { device } of creamery.box.values()) {
    const drawing = faceDrawing(creamery, creamery.device.get(device)!)!;
    const numbers = drawing.shapes.flatMap((shape) =>
      shape.kind === 'text' && /^\d+$/.test(shape.text) ? Number(shape.text) : [],
    );
    const printed = portsOf(creamery, device).flatMap(({ number }) => (number > 0 ? number : []));
    expect(numbers.sort((a, b) => a - b)).toEqual(printed.sort((a, b) => a - b));
    // Nothing reaches over the edge.
    for (const shape of drawing.shapes)
      if (shape.kind === 'box') expect(shape.x + shape.width).toBeLessThanOrEqual(drawing.width);
  }
});

test('ports are filled with the jackets of what they carry', () => {
  const port = portNamed(creamery, 'sw-a', 5);
  const colour = creamery.vlan.get(port.untagged!)!.colour;
  expect(fillsAt(creamery, 'sw-a', 5)).toEqual([colour]);
  const other = [...creamery.vlan.values()].find(({ id }) => id !== port.untagged)!;
  const voiced = set(creamery, 'sw-a', 5, accessWithVoice(port.untagged!, other.id));
  expect(fillsAt(voiced, 'sw-a', 5)).toEqual([colour, other.colour]);
  expect(fillsAt(set(creamery, 'sw-a', 5, parked(creamery)), 'sw-a', 5)).not.toContain(colour);
  const trunk = portNamed(creamery, 'sw-a', 25);
  const striped = trunk.tagged.slice(0, 4).map((vlan) => creamery.vlan.get(vlan)!.colour);
  expect(fillsAt(creamery, 'sw-a', 25)).toEqual(expect.arrayContaining(striped));
});

test('the matrix says in words what passes, and is not there without zones', () => {
  expect(matrixDrawing(emptySite())).toBeNull();
  const { shapes } = matrixDrawing(creamery)!;
  const texts = shapes.flatMap((shape) => (shape.kind === 'text' ? shape.text : []));
  const zones = creamery.zone.size;
  expect(texts).toHaveLength(2 * zones + zones * zones);
  expect(texts).toContain('HTTPS, OPC UA');
});

test('each radio lies on its band as wide as its channel, and a shared one says so', () => {
  expect(channelsDrawing(emptySite())).toBeNull();
  const drawing = channelsDrawing(creamery)!;
  const on = [...creamery.radio.values()].filter(({ enabled, channel }) => enabled && channel !== null);
  const bars = drawing.shapes.filter((shape) => shape.kind === 'box' && shape.line === INK);
  expect(bars).toHaveLength(on.length);
  for (const bar of bars)
    if (bar.kind === 'box') expect(bar.x + bar.width).toBeLessThanOrEqual(drawing.width + 0.01);
  const shared = drawing.shapes.filter((shape) => shape.kind === 'text' && shape.text.endsWith('shared'));
  const clashing = on.filter((radio) => clashesOf(creamery, radio).length > 0);
  expect(clashing.length).toBeGreaterThan(0);
  expect(shared).toHaveLength(clashing.length);
});

test('what somebody typed does not break the file', () => {
  const device = deviceNamed(creamery, 'sw-a');
  const odd = withRecord(creamery, 'device', device.id, { ...device, name: '<b>"&\u0001\ud83d\udd0c' });
  const svg = svgOf(face(odd, '<b>"&\u0001\ud83d\udd0c'));
  expect(svg).toContain('>&lt;b&gt;&quot;&amp;\ud83d\udd0c, 24 + 4 fibre');
  expect(svg).not.toContain('\u0001');
});
