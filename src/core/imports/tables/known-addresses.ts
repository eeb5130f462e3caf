import { formatAddress, parseAddress, parseMac } from '../../address';
import { type ImportColumn, assignmentOf, kindOf } from '../../edit';
import { assignmentWords } from '../../formats';
import {
  type Address,
  type Plan,
  Refusal,
  type WireCall,
  addressesOn,
  devicesNamed,
  groupBy,
  hostOf,
  interfacesOf,
} from '../../plan';
import { type ReadRow, Reading, type Taking } from '../row';
import { subnetsWith } from './ranges';

/** Rows of a table of fixed addresses that speak of a host the plan has. */

/** What stands in a column of a row. */
export type Value = (column: ImportColumn) => string;
interface Row {
  readonly line: number;
  readonly value: Value;
}

/** Who has an address, for thousands of rows: by mistake there may be several. */
function holdersIn(plan: Plan): (value: Value) => readonly Address[] {
  const holders = groupBy(plan.address.values(), ({ address }) => address);
  return (value) => {
    const address = parseAddress(value('address'));
    return address === null ? [] : (holders.get(address) ?? []);
  };
}

/** The addresses that devices of the written name have in the subnet of the written address, gateways' left out. */
function besideOf(plan: Plan, value: Value): Address[] {
  const address = parseAddress(value('address'));
  const subnets = new Set(address === null ? [] : subnetsWith(plan, address).map(({ id }) => id));
  return devicesNamed(plan, value('name'))
    .flatMap(({ id }) => interfacesOf(plan, id))
    .flatMap(({ id }) => addressesOn(plan, id))
    .filter((one) => !one.gateway && subnets.has(one.subnet) && typeof one.address === typeof address);
}

const macIs = (plan: Plan, mac: string | null) => (address: Address) =>
  mac !== null && hostOf(plan, address).interface.mac === mac;

/** What stands more than once. */
const repeated = (all: readonly string[]): ReadonlySet<string> =>
  new Set([...groupBy(all, (one) => one)].filter(([, same]) => same.length > 1).map(([one]) => one));

/**
 * Where hosts move to: a row with another address in the subnet where its host has one, if no row says that it stays, and if the
 * new address is free or another row moves away whoever has it.
 */
function movesIn(
  plan: Plan,
  rows: readonly Row[],
  stays: ReadonlySet<string>,
  holdersOf: ReturnType<typeof holdersIn>,
): Map<number, Address> {
  const moves = new Map<number, Address>();
  for (const { line, value } of rows) {
    const beside = besideOf(plan, value).filter(({ id }) => !stays.has(id));
    const mac = parseMac(value('mac'));
    const [held, ...others] = beside.length > 1 ? beside.filter(macIs(plan, mac)) : beside;
    if (held && others.length === 0) moves.set(line, held);
  }
  const drop = (fits: (row: Row) => boolean) => {
    const dropped = rows.filter((row) => moves.has(row.line) && fits(row));
    for (const { line } of dropped) moves.delete(line);
    return dropped.length > 0;
  };
  const twice = repeated([...moves.values()].map(({ id }) => id));
  const sameGoal = repeated(rows.map(({ value }) => value('address')));
  drop(({ line, value }) => twice.has(moves.get(line)!.id) || sameGoal.has(value('address')));
  // Whoever cannot go holds up the one that wants to go there.
  const blocked = () => {
    const going = new Set([...moves.values()].map(({ id }) => id));
    return drop(({ value }) => holdersOf(value).some(({ id }) => !going.has(id)));
  };
  while (blocked());
  return moves;
}

/**
 * The host that each row speaks of: by name and address; of the others by address and MAC, where it was renamed; else by the name in
 * its subnet, where it moved. A list of another program only says the first.
 */
export function knownIn(plan: Plan, rows: readonly Row[], changes: boolean): ReadonlyMap<number, Address> {
  const known = new Map<number, Address>();
  const holdersOf = holdersIn(plan);
  for (const { line, value } of rows) {
    const name = value('name').toLowerCase();
    const held = holdersOf(value).find((one) => hostOf(plan, one).device.name.toLowerCase() === name);
    const mac = parseMac(value('mac'));
    // Of two with one name the other is meant where the MAC address is that one's.
    const isOther =
      changes && held && !macIs(plan, mac)(held) && besideOf(plan, value).some(macIs(plan, mac));
    if (held && !isOther) known.set(line, held);
  }
  if (!changes) return known;
  const stays = new Set([...known.values()].map(({ id }) => id));
  for (const { line, value } of rows) {
    const mac = parseMac(value('mac'));
    if (known.has(line) || mac === null || value('name') === '') continue;
    const held = holdersOf(value)
      .filter(macIs(plan, mac))
      .find(({ id }) => !stays.has(id));
    if (!held || devicesNamed(plan, value('name')).length > 0) continue;
    known.set(line, held);
    stays.add(held.id);
  }
  const rest = rows.filter(({ line }) => !known.has(line));
  return new Map([...known, ...movesIn(plan, rest, stays, holdersOf)]);
}

/** What a table says otherwise of a host: each as the operation somebody would use, with what is told of it. */
function changesOf(
  plan: Plan,
  value: Value,
  held: Address,
  reading: Reading,
): (readonly [WireCall, string])[] {
  const { device } = hostOf(plan, held);
  const [to, name, note] = [parseAddress(value('address')), value('name'), value('note').slice(0, 200)];
  const [kind, assignment] = [kindOf(value('kind')), assignmentOf(value('assignment'))];
  if (value('kind') !== '' && kind === null)
    reading.repaired.push(`kind “${value('kind')}” is not one of ours, left as it is`);
  if (value('assignment') !== '' && assignment === null && !held.gateway)
    reading.repaired.push(`fixed by “${value('assignment')}” is none of the ways, left as it is`);
  if (value('note').length > note.length) reading.repaired.push('note shortened to 200 characters');
  const changed: (readonly [WireCall, string])[] = [];
  const add = (operation: string, input: object, said: string) => changed.push([{ operation, input }, said]);
  if (to !== null && to !== held.address)
    add(
      'moveHost',
      { address: held.id, to: formatAddress(to) },
      `moves ${device.name} from ${formatAddress(held.address)}`,
    );
  if (name.toLowerCase() !== device.name.toLowerCase())
    add('renameHost', { address: held.id, name }, `renames ${device.name}`);
  if (kind !== null && kind !== device.kind)
    add(
      'edit',
      { table: 'device', id: device.id, set: { kind } },
      `changes kind from ${device.kind} to ${kind}`,
    );
  if (assignment !== null && assignment !== held.assignment && !held.gateway)
    add(
      'setAssignment',
      { addresses: [held.id], assignment },
      `changes how it is fixed from ${assignmentWords[held.assignment]} to ${assignmentWords[assignment]}`,
    );
  if (note !== '' && note !== held.note)
    add(
      'edit',
      { table: 'address', id: held.id, set: { note } },
      held.note === '' ? 'sets the note' : `changes the note “${held.note}”`,
    );
  return changed;
}

/**
 * Reads a row that speaks of a host of the plan: as it is, with a MAC address that nobody knew yet, or, where the table may change
 * hosts, with what it says otherwise. Nothing is cleared by an empty cell.
 */
export function readKnown(taking: Taking, { line, value }: Row, held: Address, mayChange: boolean): ReadRow {
  const reading = new Reading();
  const { device, interface: card } = hostOf(taking.plan, held);
  const mac = parseMac(value('mac'));
  if (mac !== null && card.mac !== null && card.mac !== mac)
    reading.refused.push(`${device.name} has the MAC address ${card.mac} in the plan, and ${mac} here`);
  const changed = mayChange ? changesOf(taking.plan, value, held, reading) : [];
  if (mac !== null && card.mac === null)
    changed.push([
      { operation: 'edit', input: { table: 'interface', id: card.id, set: { mac } } },
      `sets the MAC address of ${device.name}`,
    ]);
  if (reading.refused.length === 0)
    try {
      taking.take(...changed.map(([call]) => call));
      reading.changed = changed.map(([, said]) => said);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      reading.refused.push(error.message);
    }
  const now = taking.plan.address.get(held.id)!;
  const { name, kind } = hostOf(taking.plan, now).device;
  return reading.row(line, [name, formatAddress(now.address), mac ?? '', kind], reading.changed.length === 0);
}
