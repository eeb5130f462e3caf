import { plainCell } from '../../edit';
import { Refusal } from '../../plan';
import type { Cells, TableKind } from '../row';
import { addresses } from './addresses';
import { cables } from './cables';
import { ports } from './ports';
import { ranges } from './ranges';
import { segments } from './segments';
import { ways } from './ways';

/** In the order in which they are taken: later ones speak of what earlier ones bring. */
export const tableKinds: readonly TableKind[] = [segments, ranges, addresses, ports, cables, ways];

export function tableKindOf(id: string): TableKind {
  const found = tableKinds.find((kind) => kind.id === id);
  if (!found) throw new Refusal('bad-input', `“${id}” is no kind of table.`);
  return found;
}

/** What heads say by themselves. Without a head, what most columns fit. */
const TELLING: readonly (readonly [string, RegExp])[] = [
  ['ports', /^(carries|vlans)$/],
  ['ways', /^(service|services|from zone|to zone)$/],
  ['cables', /^(from|to|end a|end b|from device|to device|source|destination)$/],
  ['addresses', /^(mac|mac address|address|ip|ip address|host|hostname|assignment)$/],
  ['segments', /^(purpose|gateway|subnet|network|cidr|vlan id|vid)$/],
  ['ranges', /^(range|pool|dhcp range|scope|lease)$/],
];

/** What a table is about, by its heads, else by how many of its columns are understood. */
export function kindOfTable(cells: Cells): string {
  const heads = (cells[0] ?? []).map(plainCell);
  const told = TELLING.find(([, pattern]) => heads.some((head) => pattern.test(head)));
  if (told) return told[0];
  const understood = (kind: TableKind) => {
    const { order } = kind.guess(cells.slice(0, 50));
    return order.filter((column) => column !== null).length;
  };
  return [...tableKinds].sort((a, b) => understood(b) - understood(a))[0]!.id;
}
