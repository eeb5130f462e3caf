import { formatAddress } from '../address';
import { boxesInOrder } from '../model/switching';
import { linksOf } from '../model/wiring';
import { type Plan, type Port, addressesOn, boxOf, byName, interfacesOf, portTitle } from '../plan';

/** What is stuck on ports, cables, boxes and outlets. Never a secret: only names, numbers and what is where. */

export const labelKinds = ['boxes', 'ports', 'cables', 'outlets'] as const;
export type LabelKind = (typeof labelKinds)[number];

export interface Label {
  /** What is read at arm’s length. */
  readonly big: string;
  readonly lines: readonly string[];
  /** Of the segment that passes untagged; null for none. */
  readonly colour: string | null;
  /** Where its record opens, behind the address of the site. */
  readonly path: string;
}

/** Who a port leads to over panels and outlets; empty where nothing is plugged in. */
function farEnd(plan: Plan, port: string): string {
  const [link] = linksOf(plan).get(port) ?? [];
  const other = link && plan.port.get(link.to);
  return other ? portTitle(plan, other) : '';
}

const pathOfPort = ({ device, id }: Port): string => `/gear?device=${device}&ports=${id}`;
const onCase = (plan: Plan, device: string): Port[] =>
  [...plan.port.group(device).values()]
    .filter(({ number }) => number > 0)
    .sort((a, b) => a.number - b.number);

function portLabel(plan: Plan, port: Port): Label {
  const vlan = port.untagged === null ? undefined : plan.vlan.get(port.untagged);
  const far = farEnd(plan, port.id);
  const inside = port.index === null ? '' : `inside ${port.index}`;
  const carries = vlan ? `${vlan.code} ${vlan.name}, VLAN ${vlan.vid}`.trim() : port.role;
  return {
    big: portTitle(plan, port),
    lines: [port.label, far === '' ? '' : `to ${far}`, carries, inside].filter(Boolean),
    colour: vlan?.colour ?? null,
    path: pathOfPort(port),
  };
}

function boxLabel(plan: Plan, device: string): Label {
  const { model = '', location = '' } = boxOf(plan, device) ?? {};
  const [own] = interfacesOf(plan, device).flatMap(({ id }) => addressesOn(plan, id));
  return {
    big: plan.device.get(device)!.name,
    lines: [own ? formatAddress(own.address) : '', location, model].filter(Boolean),
    colour: null,
    path: `/gear?device=${device}`,
  };
}

/** Both ends of each cable: what it is called, where this end is plugged in, and where the other one. */
const cableLabels = (plan: Plan, device: string | null): Label[] =>
  [...plan.cable.values()]
    .map((cable) => ({ cable, ends: [plan.port.get(cable.from)!, plan.port.get(cable.to)!] as const }))
    .filter(({ ends }) => device === null || ends.some((port) => port.device === device))
    .sort((a, b) => byName(portTitle(plan, a.ends[0]), portTitle(plan, b.ends[0])))
    .flatMap(({ cable, ends: [from, to] }) => {
      // One of its ends says what passes untagged: a box, not the device behind it.
      const id = from.untagged ?? to.untagged;
      const { code = '', colour = null } = (id === null ? undefined : plan.vlan.get(id)) ?? {};
      return [[from, to] as const, [to, from] as const].map(([here, there]): Label => {
        const [at, far] = [portTitle(plan, here), portTitle(plan, there)];
        return {
          big: cable.label || at,
          lines: [cable.label ? at : '', `to ${far}`, code].filter(Boolean),
          colour,
          path: pathOfPort(here),
        };
      });
    });

/** The labels of a kind, in the order in which one walks; of one box alone where it is named. */
export function labelsOf(plan: Plan, kind: LabelKind, device: string | null = null): Label[] {
  if (kind === 'cables') return cableLabels(plan, device);
  const passive = [...plan.device.values()]
    .filter((one) => one.kind === 'outlet' || one.kind === 'patch-panel')
    .sort((a, b) => byName(a.name, b.name))
    .map(({ id }) => id);
  const boxes = boxesInOrder(plan)
    .map((box) => box.device)
    .filter((id) => !passive.includes(id));
  const all = (kind === 'outlets' ? passive : boxes).filter((id) => device === null || id === device);
  return kind === 'boxes'
    ? all.map((id) => boxLabel(plan, id))
    : all.flatMap((id) => onCase(plan, id).map((port) => portLabel(plan, port)));
}

/** Sheets of labels as they are sold, in millimetres. */
export interface LabelGrid {
  readonly id: string;
  readonly title: string;
  readonly page: 'A4' | 'Letter';
  readonly columns: number;
  readonly rows: number;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly top: number;
  readonly gap: number;
  /** How much of its height is printed on, where the rest is clear and goes around the cable. */
  readonly printed: number | null;
}
const grid = (
  id: string,
  title: string,
  page: LabelGrid['page'],
  [columns, rows]: readonly [number, number],
  [width, height]: readonly [number, number],
  [left, top]: readonly [number, number],
  gap = 0,
  printed: number | null = null,
): LabelGrid => ({ id, title, page, columns, rows, width, height, left, top, gap, printed });

export const labelGrids: readonly LabelGrid[] = [
  grid('a4-24', 'A4, 3 × 8, 70 × 37 mm', 'A4', [3, 8], [70, 37], [0, 0.5]),
  grid('a4-65', 'A4, 5 × 13, 38 × 21 mm', 'A4', [5, 13], [38.1, 21.2], [4.65, 10.7], 2.5),
  grid('a4-189', 'A4, 7 × 27, 25 × 10 mm', 'A4', [7, 27], [25.4, 10], [8.6, 13.5], 2.5),
  grid('letter-30', 'Letter, 3 × 10, 67 × 25 mm', 'Letter', [3, 10], [66.7, 25.4], [4.8, 12.7], 3.2),
  grid('a4-wrap', 'A4, around cables, 25 × 38 mm', 'A4', [7, 7], [25.4, 38.1], [8.6, 15.2], 2.5, 12.7),
];
/** Width and height of a page, in millimetres. */
export const pageSizes: Readonly<Record<LabelGrid['page'], readonly [number, number]>> = {
  A4: [210, 297],
  Letter: [215.9, 279.4],
};

/** Where a label goes: on which sheet, and its corner in millimetres; the first `skip` places of the first sheet are gone already. */
export function placeOnSheet(
  { columns, rows, width, height, left, top, gap }: LabelGrid,
  index: number,
  skip: number,
): { readonly sheet: number; readonly x: number; readonly y: number } {
  const at = index + skip;
  const [sheet, place] = [Math.floor(at / (columns * rows)), at % (columns * rows)];
  return {
    sheet,
    x: left + (place % columns) * (width + gap),
    y: top + Math.floor(place / columns) * height,
  };
}
