import type { ELK, ElkEdgeSection, ElkNode } from 'elkjs/lib/elk-api';
import type { MapBox, MapModel } from './map-model';

export interface Point {
  readonly x: number;
  readonly y: number;
}
export interface Frame extends Point {
  readonly width: number;
  readonly height: number;
}
export type Side = 'left' | 'right' | 'top' | 'bottom';
/** Where the cable meets it, and its own top left corner. */
export interface PlacedSocket extends Point {
  readonly side: Side;
  readonly left: number;
  readonly top: number;
}
export interface PlacedBox extends Frame {
  /** By socket, from the top left corner of the box: where its outer edge is. */
  readonly sockets: ReadonlyMap<string, PlacedSocket>;
}
/** Where everything of a map is, in pixels at full size. */
export interface Arrangement {
  readonly boxes: ReadonlyMap<string, PlacedBox>;
  /** By cable, the corners from its first end to its other. */
  readonly cables: ReadonlyMap<string, readonly Point[]>;
}

export const HEAD = 42;
export const ROW = 22;
export const NAME_ROW = 17;
export const SOCKET = { width: 24, height: 16 };
/** Above the boxes of a place stands its name. */
export const PLACE_HEAD = 22;
export const PLACE_PAD = 7;
/** How wide a character is, of a name and of what a box is. */
const CHARACTER = 9.8;
const SMALL = 7;

/** Which rows of end devices are unfolded: box and segment. */
export const rowKey = (box: string, segment: string | null): string => `${box} ${segment ?? '-'}`;

/** The rows of a box below its head, each with where it begins. */
export function rowsOf(box: MapBox, unfolded: ReadonlySet<string>) {
  let y = HEAD;
  return box.ends.map((ends) => {
    const open = unfolded.has(rowKey(box.id, ends.segment));
    const row = { ends, y, open, height: ROW + (open ? ends.devices.length * NAME_ROW + 4 : 0) };
    y += row.height;
    return row;
  });
}

/** No name is cut: a box is as wide as its longest. */
export function sizeOf(box: MapBox, unfolded: ReadonlySet<string>): { width: number; height: number } {
  const rows = rowsOf(box, unfolded);
  const opened = rows.flatMap(({ open, ends }) =>
    open ? ends.devices.map(({ name, at }) => `${at} ${name}`.length + 2) : [],
  );
  const longest = Math.max(box.name.length, ...opened);
  return {
    width: Math.ceil(
      Math.max(rows.length > 0 ? 130 : 84, longest * CHARACTER + 26, box.kind.length * SMALL + 26),
    ),
    height: HEAD + rows.reduce((sum, { height }) => sum + height, 0) + (rows.length > 0 ? 4 : 0),
  };
}

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.hierarchyHandling': 'INCLUDE_CHILDREN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.json.edgeCoords': 'ROOT',
  'elk.json.shapeCoords': 'ROOT',
  'elk.spacing.nodeNode': '16',
  'elk.spacing.edgeNode': '12',
  'elk.spacing.edgeEdge': '10',
  'elk.layered.spacing.nodeNodeBetweenLayers': '26',
  'elk.layered.spacing.edgeNodeBetweenLayers': '12',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '9',
  'elk.layered.considerModelOrder.strategy': 'PREFER_NODES',
  'elk.aspectRatio': '1.6',
};
const BOX_OPTIONS = {
  'elk.nodeSize.constraints': '[PORTS, MINIMUM_SIZE]',
  'elk.spacing.portPort': '5',
  'elk.port.borderOffset': '0',
};

function graphOf({ boxes, cables }: MapModel, unfolded: ReadonlySet<string>): ElkNode {
  const nodeOf = (box: MapBox): ElkNode => {
    const { width, height } = sizeOf(box, unfolded);
    return {
      id: box.id,
      width,
      height,
      layoutOptions: { ...BOX_OPTIONS, 'elk.nodeSize.minimum': `(${width}, ${height})` },
      ports: box.sockets.map(({ id }) => ({ id, ...SOCKET })),
    };
  };
  const places = new Map<string, MapBox[]>();
  for (const box of boxes) if (box.place) places.set(box.place, [...(places.get(box.place) ?? []), box]);
  return {
    id: 'map',
    layoutOptions: OPTIONS,
    children: [
      ...[...places].map(([place, own]) => ({
        id: `place ${place}`,
        layoutOptions: {
          'elk.padding': `[top=${PLACE_HEAD + PLACE_PAD}, left=${PLACE_PAD + SOCKET.width}, bottom=${PLACE_PAD}, right=${PLACE_PAD + SOCKET.width}]`,
        },
        children: own.map(nodeOf),
      })),
      ...boxes.filter(({ place }) => !place).map(nodeOf),
    ],
    edges: cables.map(({ id, from, to }) => ({
      id,
      sources: [from.socket],
      targets: [to.socket],
    })),
  };
}

function sideOf(left: number, top: number, { width = 0, height = 0 }: ElkNode): Side {
  if (top + SOCKET.height <= 0) return 'top';
  if (top >= height) return 'bottom';
  return left < width / 2 ? 'left' : 'right';
}

/** From the middle of a socket to its outer edge. */
const OUTWARDS: Readonly<Record<Side, Point>> = {
  left: { x: -SOCKET.width / 2, y: 0 },
  right: { x: SOCKET.width / 2, y: 0 },
  top: { x: 0, y: -SOCKET.height / 2 },
  bottom: { x: 0, y: SOCKET.height / 2 },
};

function placed(node: ElkNode): PlacedBox {
  const { x = 0, y = 0, width = 0, height = 0 } = node;
  const sockets = (node.ports ?? []).map((port) => {
    const [left, top] = [port.x! - x, port.y! - y];
    const side = sideOf(left, top, node);
    const out = OUTWARDS[side];
    const meets = { x: left + SOCKET.width / 2 + out.x, y: top + SOCKET.height / 2 + out.y };
    return [port.id, { ...meets, side, left, top }] as const;
  });
  return { x, y, width, height, sockets: new Map(sockets) };
}

const cornersOf = ({ startPoint, bendPoints = [], endPoint }: ElkEdgeSection): Point[] => [
  startPoint,
  ...bendPoints,
  endPoint,
];

/**
 * Gives every box a place, from the outside inwards, boxes of one place together, and leads each cable from socket to socket
 * around what is in between.
 */
export async function arrange(
  model: MapModel,
  unfolded: ReadonlySet<string>,
  elk: Pick<ELK, 'layout'>,
): Promise<Arrangement> {
  const graph = await elk.layout(graphOf(model, unfolded));
  const nodes = new Map(
    (graph.children ?? [])
      .flatMap((child) => [child, ...(child.children ?? [])])
      .map((node) => [node.id, node]),
  );
  return {
    boxes: new Map(model.boxes.map((box) => [box.id, placed(nodes.get(box.id)!)])),
    cables: new Map((graph.edges ?? []).map(({ id, sections = [] }) => [id, sections.flatMap(cornersOf)])),
  };
}

/** The arrangement with boxes where somebody moved them. A cable at a moved box is led anew, straight out of its sockets. */
export function withMoved(
  { boxes, cables }: Arrangement,
  model: MapModel,
  moved: Readonly<Record<string, Point>>,
): Arrangement {
  const at = new Map([...boxes].map(([id, box]) => [id, moved[id] ? { ...box, ...moved[id] } : box]));
  const led = model.cables.map(({ id, from, to }) => {
    if (!moved[from.box] && !moved[to.box]) return [id, cables.get(id)!] as const;
    return [id, leadAnew(at.get(from.box)!, from.socket, at.get(to.box)!, to.socket)] as const;
  });
  return { boxes: at, cables: new Map(led) };
}

const STUB = 14;
const stub = ({ x, y }: Point, side: Side): Point => ({
  x: x + Math.sign(OUTWARDS[side].x) * STUB,
  y: y + Math.sign(OUTWARDS[side].y) * STUB,
});

function leadAnew(a: PlacedBox, from: string, b: PlacedBox, to: string): Point[] {
  const [p, q] = [a.sockets.get(from)!, b.sockets.get(to)!];
  const start = { x: a.x + p.x, y: a.y + p.y };
  const end = { x: b.x + q.x, y: b.y + q.y };
  const [out, into] = [stub(start, p.side), stub(end, q.side)];
  // Out and in on facing sides: one step between; else around, halfway between the two boxes.
  if (p.side === 'right' && q.side === 'left' && out.x <= into.x) {
    const x = (out.x + into.x) / 2;
    return [start, { x, y: start.y }, { x, y: end.y }, end];
  }
  const y = start.y === end.y ? start.y + a.height : (out.y + into.y) / 2;
  return [start, out, { x: out.x, y }, { x: into.x, y }, into, end];
}

/** A frame around the boxes of each place. */
export function placesOf({ boxes }: MapModel, arrangement: Arrangement): ReadonlyMap<string, Frame> {
  const frames = new Map<string, Frame>();
  for (const { id, place } of boxes) {
    if (!place) continue;
    const box = arrangement.boxes.get(id)!;
    const left = box.x - SOCKET.width - PLACE_PAD;
    const top = box.y - PLACE_HEAD - PLACE_PAD;
    const right = box.x + box.width + SOCKET.width + PLACE_PAD;
    const bottom = box.y + box.height + PLACE_PAD;
    const known = frames.get(place);
    const x = Math.min(left, known?.x ?? left);
    const y = Math.min(top, known?.y ?? top);
    frames.set(place, {
      x,
      y,
      width: Math.max(right, known ? known.x + known.width : right) - x,
      height: Math.max(bottom, known ? known.y + known.height : bottom) - y,
    });
  }
  return frames;
}

/** All of it in one frame, with a margin. */
export function extentOf(model: MapModel, arrangement: Arrangement): Frame {
  const frames = [...arrangement.boxes.values(), ...placesOf(model, arrangement).values()];
  const points = [...arrangement.cables.values()].flat();
  const left = Math.min(...frames.map(({ x }) => x - SOCKET.width), ...points.map(({ x }) => x)) - 10;
  const top = Math.min(...frames.map(({ y }) => y), ...points.map(({ y }) => y)) - 10;
  const right =
    Math.max(...frames.map(({ x, width }) => x + width + SOCKET.width), ...points.map(({ x }) => x)) + 10;
  const bottom = Math.max(...frames.map(({ y, height }) => y + height), ...points.map(({ y }) => y)) + 10;
  return { x: left, y: top, width: right - left, height: bottom - top };
}
