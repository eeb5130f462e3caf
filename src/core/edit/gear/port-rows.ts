import { type Plan, type Port, Refusal, badInput, groupBy } from '../../plan';
import { deviceMeant } from '../../model/hosts';
import { describePorts, portsIn, portsOf, scheduledText, typedTagged, typedVlan } from '../../model/wiring';
import { type ColumnKinds, type Columns, columnsIn, rowsIn } from '../columns';
import { type AssignmentInput, type PortTableRow, changedBy } from './ports';

/** A pasted row about ports: what it sets, nothing where all is so already, or refused with why. */
export interface PortRow {
  /** Line in the pasted text, from 1. */
  readonly line: number;
  readonly box: string;
  readonly ports: string;
  readonly carries: string;
  readonly label: string | null;
  /** What the port numbers mean, in words; empty when they mean nothing. */
  readonly meaning: string;
  /** Why it is refused; null for a good row. */
  readonly why: string | null;
  /** The ports of the row by id; none when it is refused. */
  readonly of: readonly string[];
  /** What it sets, as `importPorts` takes it. */
  readonly sets: readonly PortTableRow[];
}

/** What a row changes of its ports. Throws a Refusal. */
function setsOf(plan: Plan, ports: readonly Port[], carries: string, label: string | null): PortTableRow[] {
  const sets: PortTableRow[] = [];
  if (
    // A label alone is a row too.
    !(carries === '' && label !== null) &&
    ports.some((port) => scheduledText(plan, port).toLowerCase() !== carries.toLowerCase())
  ) {
    if (carries === '') throw badInput('The column carries is empty.', 'carries');
    const assignment = typedCarried(plan, carries);
    const changed = changedBy(plan, ports, assignment);
    if (changed.length > 0)
      sets.push({ assign: { ports: changed.map(({ id }) => id), ...assignment }, label: null });
  }
  const relabelled = label === null ? [] : ports.filter((port) => port.label !== label);
  if (label !== null && relabelled.length > 0) sets.push({ ports: relabelled.map(({ id }) => id), label });
  return sets;
}

/** Those that have the number of one of these ports by mistake too, with it; none where each has its own. */
const sameNumber = (ports: readonly Port[], all: readonly Port[]): readonly Port[] =>
  [...groupBy(all, ({ number }) => number).values()].find(
    (same) => same.length > 1 && same.some((port) => ports.includes(port)),
  ) ?? [];

const heads = {
  box: ['box', 'device', 'switch', 'name'],
  ports: ['port', 'ports', 'number', 'interface'],
  carries: ['carries', 'vlan', 'vlans', 'segment', 'role', 'mode'],
  label: ['label', 'description', 'note', 'comment'],
} as const;
export type PortColumn = keyof typeof heads;
const kinds: ColumnKinds<PortColumn> = {
  heads,
  looks: [],
  // Without a head they stand as they are pasted from the schedule.
  rest: Object.keys(heads) as PortColumn[],
  isRow: (cell) => /\d/.test(cell),
};
export const portColumnsOf = (cells: readonly (readonly string[])[]): Columns<PortColumn> =>
  columnsIn(cells, kinds);

/** Reads rows of box, ports, what they carry and a label; with a head row in any order. What is so already is left alone. */
export function readPortRows(
  plan: Plan,
  cells: readonly (readonly string[])[],
  columns: Columns<PortColumn> = portColumnsOf(cells),
): PortRow[] {
  const { order, header } = columns;
  const needed = ['box', 'ports', ...(order.includes('label') ? [] : ['carries' as const])] as const;
  const missing = needed.filter((column) => header && !order.includes(column));
  return rowsIn(cells, columns).map(({ line, value, has }) => {
    const text = { line, box: value('box'), ports: value('ports'), carries: value('carries') };
    const label = has('label') ? value('label') : null;
    try {
      const absent = missing[0] ?? (['box', 'ports'] as const).find((column) => value(column) === '');
      if (absent)
        throw new Refusal('bad-input', `The column ${absent} is ${missing.length ? 'missing' : 'empty'}.`);
      const device = deviceMeant(plan, text.box, 'box', ({ id }) => portsOf(plan, id).length > 0);
      if (!device) throw new Refusal('bad-input', `There is no box “${text.box}”.`);
      const all = portsOf(plan, device.id);
      const inside = /^inside$/i.test(text.ports) ? all.filter(({ number }) => number === 0) : [];
      const ports = inside.length > 0 ? inside : portsIn(text.ports, all);
      const sets = setsOf(plan, ports, text.carries, label);
      const twice = sets.length > 0 ? sameNumber(ports, all) : [];
      // Each of them has a row of its own in our schedule, and says nothing new there.
      const isOne = twice.some((port) => setsOf(plan, [port], text.carries, label).length === 0);
      if (twice.length > 0 && !isOne)
        throw new Refusal(
          'bad-input',
          `${device.name} has ${twice.length} ports ${twice[0]!.number}; which of them is meant is not known. Set it in the table of ports.`,
        );
      return {
        ...text,
        label,
        meaning: describePorts(ports, all),
        why: null,
        of: ports.map(({ id }) => id),
        sets: isOne ? [] : sets,
      };
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      return { ...text, label, meaning: '', why: error.message, of: [], sets: [] };
    }
  });
}

/**
 * What a port is to carry, as written: `20`, `access CM`, `voice 20`, `access 20 CM + voice 60`, `trunk 10+20 untagged 30`,
 * `parked`. Throws a Refusal; nothing that is written is passed over.
 */
export function typedCarried(plan: Plan, text: string): Omit<AssignmentInput, 'ports'> {
  const plain = text.trim().toLowerCase();
  if (plain === 'parked' || plain === 'park' || plain === 'off') return { role: 'parked' };
  if (plain === 'uplink' || plain === 'faces a provider') return { role: 'uplink' };
  if (plain === 'undecided') return { role: 'undecided' };
  const trunk = /^trunk\s+(.*?)(?:,?\s*untagged\s+(.+))?$/.exec(plain);
  if (trunk) {
    const untagged = trunk[2] === undefined || trunk[2] === 'none' ? null : typedVlan(plan, trunk[2]).id;
    return { role: 'trunk', vlan: untagged, ...typedTagged(plan, trunk[1]!.replace(/[+;]/g, ',')) };
  }
  const both = /^access\s+(.+?)\s*\+\s*voice(?:\s+(.+))?$/.exec(plain);
  if (both) {
    const phones = both[2] === undefined || both[2] === 'none' ? {} : { voice: typedVlan(plan, both[2]).id };
    return { role: 'voice', vlan: typedVlan(plan, both[1]!).id, ...phones };
  }
  const voice = /^(?:voice|access\s*\+\s*voice)\s+(.+)$/.exec(plain);
  if (voice) return { role: 'voice', vlan: typedVlan(plan, voice[1]!).id };
  return { role: 'access', vlan: typedVlan(plan, plain.replace(/^access\s+/, '')).id };
}
