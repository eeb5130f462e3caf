import ELK from 'elkjs';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { readPlanFile } from '../../formats';
import { drawnNetwork, network } from '../../testing/networks';
import { runs } from '../../testing/runs';
import { type Plan, devicesNamed } from '../../plan';
import { done } from '../../testing/plans';
import { type Arrangement, type Frame, type Point, arrange, extentOf, placesOf, withMoved } from './arrange';
import { INTERNET, type MapModel, boxSentence, mapOf } from './map-model';
import { positionsOf } from './positions';

const elk = new ELK();
const FOLDED: ReadonlySet<string> = new Set();
const demo = (name: string): Plan => readPlanFile(readFileSync(`demo/${name}.json`, 'utf8'));
const boxNamed = (model: MapModel, name: string) => model.boxes.find((box) => box.name === name)!;

const overlap = (a: Frame, b: Frame): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
/** Does a line of a cable run through the inside of a frame? */
const through = (from: Point, to: Point, { x, y, width, height }: Frame): boolean =>
  overlap(
    {
      x: Math.min(from.x, to.x),
      y: Math.min(from.y, to.y),
      width: Math.max(Math.abs(from.x - to.x), 0.01),
      height: Math.max(Math.abs(from.y - to.y), 0.01),
    },
    { x: x + 1, y: y + 1, width: width - 2, height: height - 2 },
  );

function faultsOf(model: MapModel, { boxes, cables }: Arrangement): string[] {
  const found: string[] = [];
  const placed = model.boxes.map((box) => ({ box, at: boxes.get(box.id)! }));
  placed.forEach(({ box, at }, i) => {
    for (const other of placed.slice(i + 1))
      if (overlap(at, other.at)) found.push(`${box.name} lies on ${other.box.name}`);
  });
  for (const cable of model.cables) {
    const points = cables.get(cable.id)!;
    for (const [end, point] of [
      [cable.from, points[0]!],
      [cable.to, points.at(-1)!],
    ] as const) {
      const box = boxes.get(end.box)!;
      const socket = box.sockets.get(end.socket)!;
      if (Math.hypot(box.x + socket.x - point.x, box.y + socket.y - point.y) > 1)
        found.push(`${cable.id} ends beside its socket`);
    }
    for (let i = 1; i < points.length; i++)
      for (const { box, at } of placed)
        if (through(points[i - 1]!, points[i]!, at)) found.push(`${cable.id} runs through ${box.name}`);
  }
  return found;
}

describe('the arrangement of the map', () => {
  it.each(['1-row-house', '2-clinic', '3-creamery'])(
    'leads every cable of %s from socket to socket around the boxes',
    async (name) => {
      const model = mapOf(demo(name));
      expect(faultsOf(model, await arrange(model, FOLDED, elk))).toEqual([]);
    },
  );

  it('holds on networks drawn at random, with panels, rings and cables from a box to itself', async () => {
    await fc.assert(
      fc.asyncProperty(drawnNetwork, async (drawn) => {
        const model = mapOf(network(drawn));
        const arranged = await arrange(model, FOLDED, elk);
        expect(faultsOf(model, arranged)).toEqual([]);
      }),
      { numRuns: runs(60) },
    );
  });

  it('keeps boxes of one place in one frame, and everything within the extent', async () => {
    const model = mapOf(demo('3-creamery'));
    const arranged = await arrange(model, FOLDED, elk);
    const frames = placesOf(model, arranged);
    const extent = extentOf(model, arranged);
    for (const box of model.boxes) {
      const at = arranged.boxes.get(box.id)!;
      for (const [place, frame] of frames) expect(overlap(at, frame)).toBe(place === box.place);
      expect(at.x >= extent.x && at.x + at.width <= extent.x + extent.width).toBe(true);
      expect(at.y >= extent.y && at.y + at.height <= extent.y + extent.height).toBe(true);
    }
  });

  it('leads cables anew at a box that was moved by hand, and leaves the others', async () => {
    const model = mapOf(demo('3-creamery'));
    const before = await arrange(model, FOLDED, elk);
    const sw = boxNamed(model, 'sw-d').id;
    const after = withMoved(before, model, { [sw]: { x: -400, y: 900 } });
    expect(after.boxes.get(sw)).toMatchObject({ x: -400, y: 900 });
    for (const { id, from, to } of model.cables) {
      const moved = from.box === sw || to.box === sw;
      expect(after.cables.get(id) === before.cables.get(id)).toBe(!moved);
    }
    const cable = model.cables.find(({ to }) => to.box === sw)!;
    const box = after.boxes.get(sw)!;
    const socket = box.sockets.get(cable.to.socket)!;
    expect(after.cables.get(cable.id)!.at(-1)).toEqual({ x: box.x + socket.x, y: box.y + socket.y });
  });

  it('makes a box as wide as its longest name', async () => {
    const model = mapOf(demo('2-clinic'));
    const long = { ...model.boxes[1]!, name: 'switch-in-the-long-corridor-by-the-boiler' };
    const arranged = await arrange({ ...model, boxes: [long], cables: [] }, FOLDED, elk);
    expect(arranged.boxes.get(long.id)!.width).toBeGreaterThan(long.name.length * 9);
  });
});

describe('where somebody put boxes', () => {
  const plan = demo('2-clinic');
  const { id } = devicesNamed(plan, 'ap-05')[0]!;
  const put = (on: Plan, device: string | null, x: number, y: number) =>
    done(on, 'putOnMap', { device, x, y });

  it('is one position to a box, and one for the Internet', () => {
    const moved = put(put(put(plan, id, 10, 20), id, -30, 40), null, 5, 5);
    expect(positionsOf(moved)).toEqual({ [id]: { x: -30, y: 40 }, [INTERNET]: { x: 5, y: 5 } });
    expect(moved.mapPosition.size).toBe(2);
    expect(() => put(plan, id, 1e6, 0)).toThrow(/write a whole number from -100000 to 100000/);
    expect(() => put(plan, 'nobody', 0, 0)).toThrow();
  });

  it('goes with the box, and all of them when the map is arranged anew', () => {
    const moved = put(put(plan, id, 10, 20), null, 5, 5);
    expect(positionsOf(done(moved, 'removeDevice', { device: id }))).toEqual({ [INTERNET]: { x: 5, y: 5 } });
    const anew = done(moved, 'arrangeMap', {});
    expect(positionsOf(anew)).toEqual({});
    expect(() => done(anew, 'arrangeMap', {})).toThrow('Nothing on the map was moved');
  });
});

describe('what the map shows', () => {
  const plan = demo('2-clinic');
  const model = mapOf(plan);

  it('begins at the Internet, and says every box with its cables and end devices', () => {
    expect(model.boxes[0]!.name).toBe('Internet');
    expect(boxSentence(plan, model, boxNamed(model, 'sw-kennels'))).toBe(
      'sw-kennels, switch, kennels, port 1 to ap-03 1, port 25 to sw-rack 49, 11 in Cameras, 7 in Kennel climate',
    );
  });

  it('counts every end device that a cable leads to once', () => {
    const counted = model.boxes.flatMap(({ ends }) =>
      ends.flatMap(({ devices }) => devices.map(({ id }) => id)),
    );
    expect(new Set(counted).size).toBe(counted.length);
    const cabled = new Set(
      [...plan.cable.values()].flatMap(({ from, to }) => [from, to].map((id) => plan.port.get(id)!.device)),
    );
    const ends = [...cabled].filter((id) => plan.box.by('device', id).length === 0);
    expect(counted.sort()).toEqual(ends.sort());
  });

  it('draws no Internet where no uplink is recorded', () => {
    const without = network({ boxes: [], panels: [], cables: [] } as never);
    expect(mapOf(without).boxes).toEqual([]);
  });
});
