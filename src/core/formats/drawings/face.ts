import { carriedText, portsOf } from '../../model/wiring';
import { INK, WHITE, textOn } from '../../model/segments';
import { type Device, type Plan, type Port, boxOf, vlansOf } from '../../plan';
import type { Drawing, Shape } from './drawing';

/** The face of a box: its ports where they stand on the case, filled with the jackets of what they carry. */

const PORT = { width: 34, height: 26, gap: 4 } as const;
const EDGE = 10;
const HEAD = 22;
const METAL = '#1d2823';
const DIM = '#9fb0a6';
/** As many stripes as can be told apart; more are counted. */
const MOST_STRIPES = 4;

const colourOf = (plan: Plan, vlan: string): string => plan.vlan.get(vlan)?.colour ?? DIM;

/** The VLANs a trunk is striped with. */
function stripesOf(plan: Plan, port: Port): readonly string[] {
  if (port.taggedMode === 'list') return port.tagged;
  const left = new Set(port.taggedMode === 'except' ? port.tagged : []);
  return vlansOf(plan)
    .map(({ id }) => id)
    .filter((vlan) => !left.has(vlan) && vlan !== port.untagged);
}

function filling(plan: Plan, port: Port, x: number, y: number): { shapes: Shape[]; under: string } {
  const { width, height } = PORT;
  const box = (fill: string | null, more: object = {}): Shape => ({
    kind: 'box',
    x,
    y,
    width,
    height,
    fill,
    ...more,
  });
  switch (port.role) {
    case 'access':
    case 'voice': {
      const fill = port.untagged === null ? METAL : colourOf(plan, port.untagged);
      const inlay: Shape[] =
        port.voice === null
          ? []
          : [
              {
                kind: 'box',
                x: x + width - 11,
                y: y + 3,
                width: 8,
                height: 8,
                fill: colourOf(plan, port.voice),
                line: WHITE,
              },
            ];
      return { shapes: [box(fill), ...inlay], under: fill };
    }
    case 'trunk': {
      const all = stripesOf(plan, port);
      const shown = all.slice(0, MOST_STRIPES);
      const each = height / Math.max(1, shown.length);
      const stripes = shown.map((vlan, i): Shape => ({
        kind: 'box',
        x,
        y: y + i * each,
        width,
        height: each,
        fill: colourOf(plan, vlan),
      }));
      const notch: Shape[] =
        port.untagged === null
          ? []
          : [
              {
                kind: 'box',
                x,
                y: y + height - 8,
                width: 8,
                height: 8,
                fill: colourOf(plan, port.untagged),
                line: WHITE,
              },
            ];
      return { shapes: [box(METAL), ...stripes, box(null, { line: WHITE }), ...notch], under: METAL };
    }
    case 'parked':
      return {
        shapes: [
          box(METAL, { line: DIM }),
          ...[0, 1, 2].map((i): Shape => ({
            kind: 'line',
            from: { x: x + (i * width) / 3, y: y + height },
            to: { x: x + ((i + 1) * width) / 3, y },
            line: DIM,
          })),
        ],
        under: METAL,
      };
    case 'uplink':
      return { shapes: [box(WHITE)], under: WHITE };
    default:
      return { shapes: [box(METAL, { line: DIM, dashed: true })], under: METAL };
  }
}

/** The number as printed, on a field of its own where stripes run below it. */
function numbered(port: Port, x: number, y: number, under: string): Shape[] {
  const text = String(port.number);
  const middle = { x: x + PORT.width / 2, y: y + PORT.height / 2 + 4 };
  const onStripes = port.role === 'trunk' || port.role === 'parked';
  const plate: Shape[] = onStripes
    ? [{ kind: 'box', x: middle.x - 10, y: middle.y - 10, width: 20, height: 13, fill: METAL }]
    : [];
  const fill = onStripes ? WHITE : textOn(under);
  return [...plate, { kind: 'text', ...middle, text, size: 11, fill, bold: true, middle: true }];
}

/** The face of a box with its ports; null where it has none. */
export function faceDrawing(plan: Plan, device: Device, { named = true } = {}): Drawing | null {
  const ports = portsOf(plan, device.id).filter(({ number }) => number > 0);
  if (ports.length === 0) return null;
  const [first, last] = [Math.min(...ports.map(({ row }) => row)), Math.max(...ports.map(({ row }) => row))];
  const columns = Math.max(...ports.map(({ column }) => column)) + 1;
  const name = `${device.name}, ${boxOf(plan, device.id)?.model ?? device.kind}`;
  const head = named ? HEAD : 0;
  const step = { x: PORT.width + PORT.gap, y: PORT.height + PORT.gap };
  const case_ = { width: columns * step.x + 2 * EDGE, height: (last - first + 1) * step.y + 2 * EDGE };
  const shapes = ports.flatMap((port) => {
    const [x, y] = [EDGE + port.column * step.x, head + EDGE + (port.row - first) * step.y];
    const { shapes: own, under } = filling(plan, port, x, y);
    return [...own, ...numbered(port, x, y, under)];
  });
  return {
    title: `${name}: ${ports.map((port) => `${port.number} ${carriedText(plan, port)}`).join('; ')}`,
    width: case_.width,
    height: case_.height + head,
    shapes: [
      ...(named
        ? [{ kind: 'text', x: 0, y: HEAD - 7, text: name, size: 13, fill: INK, bold: true } as const]
        : []),
      { kind: 'box', x: 0, y: head, width: case_.width, height: case_.height, fill: METAL },
      ...shapes,
    ],
  };
}
