import { INK, WHITE, textOn } from '../../model/segments';
import {
  type Arrangement,
  INTERNET,
  type MapBox,
  type PlacedBox,
  ROW,
  SOCKET,
  extentOf,
  mapOf,
  placesOf,
  rowsOf,
} from '../../model/map';
import type { Plan } from '../../plan';
import type { Drawing, Shape } from './drawing';

/** The boxes of a site and the cables between them, where an arrangement puts them. */

const FOLDED: ReadonlySet<string> = new Set();
const MUTED = '#46554c';
const RULE = '#c3ccc6';
const HEAD_TEXT = { name: 19, kind: 35, left: 13 } as const;
const PLATE = { width: 62, height: 16 } as const;

function boxShapes(plan: Plan, box: MapBox, placed: PlacedBox): Shape[] {
  const { x, y, width, height } = placed;
  const outside = box.kind === INTERNET;
  const [fill, ink] = outside ? [INK, WHITE] : [WHITE, INK];
  const sockets = box.sockets.flatMap(({ id, number }): Shape[] => {
    const { left, top } = placed.sockets.get(id)!;
    const at = { x: x + left, y: y + top };
    const middle = { x: at.x + SOCKET.width / 2, y: at.y + SOCKET.height / 2 + 4 };
    return [
      { kind: 'box', ...at, ...SOCKET, fill: WHITE, line: INK },
      ...(number === null
        ? []
        : [
            {
              kind: 'text',
              ...middle,
              text: String(number),
              size: 12,
              fill: INK,
              bold: true,
              middle: true,
            } as const,
          ]),
    ];
  });
  const ends = rowsOf(box, FOLDED).flatMap(({ ends: { segment, devices }, y: down }): Shape[] => {
    const vlan = segment === null ? undefined : plan.vlan.get(segment)!;
    const top = y + down;
    return [
      { kind: 'line', from: { x, y: top }, to: { x: x + width, y: top }, line: RULE },
      { kind: 'box', x: x + 13, y: top + 3, ...PLATE, fill: vlan?.colour ?? null, line: INK },
      {
        kind: 'text',
        x: x + 13 + PLATE.width / 2,
        y: top + 15.5,
        text: vlan ? `${vlan.vid} ${vlan.code}` : 'none',
        size: 12,
        fill: vlan ? textOn(vlan.colour) : INK,
        bold: true,
        middle: true,
      },
      {
        kind: 'text',
        x: x + 84,
        y: top + ROW - 6.5,
        text: `×${devices.length}`,
        size: 13,
        fill: INK,
        bold: true,
      },
    ];
  });
  return [
    ...sockets,
    { kind: 'box', x, y, width, height, fill, line: INK },
    {
      kind: 'text',
      x: x + HEAD_TEXT.left,
      y: y + HEAD_TEXT.name,
      text: box.name,
      size: 16,
      fill: ink,
      bold: true,
    },
    {
      kind: 'text',
      x: x + HEAD_TEXT.left,
      y: y + HEAD_TEXT.kind,
      text: outside ? 'outside' : box.kind.replaceAll('-', ' '),
      size: 13,
      fill: outside ? WHITE : MUTED,
    },
    ...ends,
  ];
}

/** A shape as far from the corner of the drawing as it is from that of the map. */
function moved(shape: Shape, dx: number, dy: number): Shape {
  const by = ({ x, y }: { readonly x: number; readonly y: number }) => ({ x: x - dx, y: y - dy });
  return shape.kind === 'line'
    ? { ...shape, from: by(shape.from), to: by(shape.to) }
    : { ...shape, ...by(shape) };
}

/** The map; null where no box is recorded. The arrangement is one of `mapOf` the same plan, with nothing unfolded. */
export function mapDrawing(plan: Plan, arrangement: Arrangement): Drawing | null {
  const model = mapOf(plan);
  if (model.boxes.length === 0) return null;
  const { x, y, width, height } = extentOf(model, arrangement);
  const places = [...placesOf(model, arrangement)].flatMap(([name, frame]): Shape[] => [
    { kind: 'box', ...frame, fill: null, line: MUTED, dashed: true },
    { kind: 'text', x: frame.x + 10, y: frame.y + 16, text: name, size: 15, fill: MUTED, bold: true },
  ]);
  const cables = model.cables.flatMap(({ id }): Shape[] => {
    const points = arrangement.cables.get(id)!;
    return points.slice(1).map((to, i) => ({ kind: 'line', from: points[i]!, to, line: INK }));
  });
  const boxes = model.boxes.flatMap((box) => boxShapes(plan, box, arrangement.boxes.get(box.id)!));
  return {
    title: `Map: ${model.boxes.map(({ name, place }) => (place === '' ? name : `${name} in ${place}`)).join('; ')}`,
    width,
    height,
    shapes: [...places, ...cables, ...boxes].map((shape) => moved(shape, x, y)),
  };
}
