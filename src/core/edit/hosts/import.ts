import * as z from 'zod';
import {
  type IpAddress,
  formatAddress,
  isShortAddress,
  parseAddress,
  parseAddressIn,
  parseMac,
  isGroupMac,
  contains,
  formatPrefix,
  usableRange,
} from '../../address';
import {
  operation,
  type Plan,
  type Address,
  type DeviceKind,
  type Subnet,
  deviceKinds,
  Refusal,
  addressesOf,
  devicesNamed,
  domainOf,
  hostOf,
  interfacesWithMac,
} from '../../plan';
import { type ColumnKinds, type Columns, columnsIn, rowsIn } from '../columns';
import { hostInput, insertHost, usualAssignment } from './operations';
import { nameMessage, nameProblem, proposeHostName, nextFreeAddress } from '../../model/hosts';
import { purposeDefaults } from '../../model/segments';

/** Columns a pasted table can have, with the heads people give them. */
const heads: Readonly<Record<ImportColumn, readonly string[]>> = {
  name: ['name', 'host', 'hostname', 'host name', 'device', 'label'],
  address: ['address', 'ip', 'ip address', 'ipv4', 'ipv4 address', 'ip-address'],
  mac: ['mac', 'mac address', 'mac-address', 'hardware address', 'physical address', 'hw address'],
  kind: ['kind', 'type', 'kind of device', 'device type', 'what'],
  note: ['note', 'notes', 'comment', 'remark', 'description', 'location', 'place'],
  assignment: ['assignment', 'fixed by', 'mode', 'static or reservation'],
};
export type ImportColumn = 'name' | 'address' | 'mac' | 'kind' | 'note' | 'assignment';

export interface ImportRow {
  /** Line in the pasted text, from 1. */
  readonly line: number;
  readonly verdict: 'good' | 'repaired' | 'refused';
  /** What was repaired or why it is refused, in plain words; empty for a good row. */
  readonly why: readonly string[];
  readonly name: string;
  readonly address: string;
  readonly mac: string;
  readonly kind: DeviceKind;
  readonly note: string;
  readonly assignment: Address['assignment'];
  readonly subnet: string | null;
}

/** The kind of device that is written; null for what is none. */
export const kindOf = (cell: string): DeviceKind | null => {
  const plain = cell.trim().toLowerCase().replace(/[ _]+/g, '-');
  return deviceKinds.find((kind) => kind === plain || `${kind}s` === plain) ?? null;
};
/** What people write for the ways an address is fixed, our own schedules too. */
const ways: readonly (readonly [Address['assignment'], RegExp])[] = [
  ['static', /^(static( on (the )?device)?|fixed|manual)$/],
  ['reservation', /^(reservation|reserved( by mac)?|dhcp|fixed lease|binding|address binding)$/],
  ['virtual', /^virtual$/],
];
/** How an address is fixed, as written; null for what is none of the ways. */
export const assignmentOf = (cell: string): Address['assignment'] | null =>
  ways.find(([, written]) => written.test(cell.trim().toLowerCase()))?.[0] ?? null;

const kinds: ColumnKinds<ImportColumn> = {
  heads,
  looks: [
    ['mac', (cell) => parseMac(cell) !== null],
    ['address', (cell) => parseAddress(cell) !== null || isShortAddress(cell)],
    ['kind', (cell) => kindOf(cell) !== null],
    ['assignment', (cell) => assignmentOf(cell) !== null],
  ],
  rest: ['name', 'note'],
  isRow: (cell) => parseAddress(cell) !== null || parseMac(cell) !== null,
};
/** Which column is what: by the head row if there is one, else by what the cells look like. */
export const columnsOf = (cells: readonly (readonly string[])[]): Columns<ImportColumn> =>
  columnsIn(cells, kinds);

/**
 * Reads pasted rows against the plan: each is good, repaired (with what was mended) or refused (with why). `home` is
 * the subnet for rows without an address and for short forms like `.24`; other addresses find their own subnet.
 */
export function readRows(
  plan: Plan,
  home: Subnet,
  cells: readonly (readonly string[])[],
  columns: Columns<ImportColumn> = columnsOf(cells),
): ImportRow[] {
  const reader = new RowReader(plan, home);
  return rowsIn(cells, columns).map(({ line, value }) => reader.read(line, value));
}

class RowReader {
  private readonly addresses = new Map<IpAddress, number>();
  private readonly macs = new Map<string, number>();
  private readonly names = new Map<string, number>();
  private readonly subnets: readonly Subnet[];

  constructor(
    private readonly plan: Plan,
    private readonly home: Subnet,
  ) {
    this.subnets = [...plan.subnet.values()];
  }

  read(line: number, value: (column: ImportColumn) => string): ImportRow {
    const repaired: string[] = [];
    const refused: string[] = [];
    const kindText = value('kind');
    const kind = kindOf(kindText) ?? (kindText ? 'other' : this.usualKind(value('address')));
    if (kindText && kindOf(kindText) === null)
      repaired.push(`kind “${kindText}” is not one of ours, taken as other`);

    const mac = this.readMac(value('mac'), line, repaired, refused);
    const assignment = assignmentOf(value('assignment')) ?? usualAssignment(this.plan);
    if (value('assignment') !== '' && assignmentOf(value('assignment')) === null)
      repaired.push(`fixed by “${value('assignment')}” is none of the ways, taken as ${assignment}`);
    if (['name', 'address', 'mac', 'kind'].every((column) => value(column as ImportColumn) === ''))
      refused.push('it has neither name nor address, MAC or kind');
    const { address, subnet } = this.readAddress(value('address'), kind, assignment, line, repaired, refused);
    const name = this.readName(value('name'), subnet ?? this.home, kind, line, repaired, refused);
    let note = value('note');
    if (note.length > 200) {
      note = note.slice(0, 200);
      repaired.push('note shortened to 200 characters');
    }
    return {
      line,
      verdict: refused.length ? 'refused' : repaired.length ? 'repaired' : 'good',
      why: refused.length ? refused : repaired,
      name,
      address: address === null ? value('address') : formatAddress(address),
      mac: mac ?? value('mac'),
      kind,
      note,
      assignment,
      subnet: subnet?.id ?? null,
    };
  }

  private readMac(text: string, line: number, repaired: string[], refused: string[]): string | null {
    if (text === '') return null;
    const mac = parseMac(text);
    if (mac === null) {
      refused.push(`MAC “${text}” needs twelve hexadecimal digits like 00:00:5E:00:53:01`);
      return null;
    }
    if (isGroupMac(mac)) refused.push(`MAC ${mac} is a group address, no single device has it`);
    const before = this.macs.get(mac);
    if (before !== undefined) refused.push(`MAC ${mac} stands in line ${before} too`);
    const known = interfacesWithMac(this.plan, mac)[0];
    if (known) refused.push(`MAC ${mac} is ${this.plan.device.get(known.device)!.name}’s already`);
    if (mac !== text && mac !== text.toUpperCase()) repaired.push(`MAC written as ${mac}`);
    this.macs.set(mac, line);
    return mac;
  }

  /** Where no kind is given: what usually stands in the segment of the address. */
  private usualKind(text: string): DeviceKind {
    const address = parseAddress(text.replace(/\/\d+$/, ''));
    const there = address === null ? undefined : this.subnets.find(({ prefix }) => contains(prefix, address));
    return purposeDefaults[this.plan.vlan.get((there ?? this.home).vlan)!.purpose].hosts;
  }

  private readAddress(
    text: string,
    kind: DeviceKind,
    assignment: Address['assignment'],
    line: number,
    repaired: string[],
    refused: string[],
  ): { address: IpAddress | null; subnet: Subnet | null } {
    if (text === '') {
      const promised = new Set(this.addresses.keys());
      const address = nextFreeAddress(this.plan, this.home, kind, assignment, promised);
      if (address === null) refused.push(`${formatPrefix(this.home.prefix)} has no free address left`);
      else {
        this.addresses.set(address, line);
        repaired.push(`next free address ${formatAddress(address)}`);
      }
      return { address, subnet: this.home };
    }
    const address = parseAddressIn(text.replace(/\/\d+$/, ''), this.home.prefix);
    if (address !== null && isShortAddress(text))
      repaired.push(`“${text}” taken as ${formatAddress(address)}`);
    else if (address !== null && text.includes('/')) repaired.push('the length after / dropped');
    if (address === null) {
      refused.push(
        `“${text}” is not an address; write ${formatAddress(this.home.prefix.address)} style numbers`,
      );
      return { address, subnet: this.home };
    }
    const found = address;
    const subnet = contains(this.home.prefix, found)
      ? this.home
      : (this.subnets.find((candidate) => contains(candidate.prefix, found)) ?? null);
    if (!subnet) refused.push(`${formatAddress(found)} lies in no subnet of this site`);
    else {
      const { first, last } = usableRange(subnet.prefix);
      if (found < first || found > last)
        refused.push(
          `${formatAddress(found)} is the network or broadcast address of ${formatPrefix(subnet.prefix)}`,
        );
      const holder = addressesOf(this.plan, subnet.id).find((other) => other.address === found);
      if (holder)
        refused.push(`${formatAddress(found)} is ${hostOf(this.plan, holder).device.name}’s already`);
    }
    const before = this.addresses.get(found);
    if (before !== undefined) refused.push(`${formatAddress(found)} stands in line ${before} too`);
    this.addresses.set(found, line);
    return { address: found, subnet };
  }

  private readName(
    text: string,
    subnet: Subnet,
    kind: DeviceKind,
    line: number,
    repaired: string[],
    refused: string[],
  ): string {
    let name = text;
    if (text === '') {
      name = proposeHostName(this.plan, subnet, kind, new Set(this.names.keys()));
      repaired.push(`named ${name} by the site’s pattern`);
    } else {
      const problem = nameProblem(text);
      if (problem?.repair) {
        name = problem.repair;
        repaired.push(`name “${text}” written as ${name}`);
      } else if (problem) refused.push(nameMessage(problem));
    }
    const key = name.toLowerCase();
    const before = this.names.get(key);
    if (before !== undefined) refused.push(`the name ${name} stands in line ${before} too`);
    else if (this.nameTaken(name, subnet)) refused.push(`the name ${name} is taken in this domain`);
    this.names.set(key, line);
    return name;
  }

  private nameTaken(name: string, subnet: Subnet): boolean {
    const domain = domainOf(this.plan, subnet);
    const ids = new Set(devicesNamed(this.plan, name).map((device) => device.id));
    if (ids.size === 0) return false;
    return this.subnets.some(
      (other) =>
        domainOf(this.plan, other) === domain &&
        addressesOf(this.plan, other.id).some((address) => ids.has(hostOf(this.plan, address).device.id)),
    );
  }
}

/** Adds the good and repaired rows of a reviewed paste as one change. */
export const importHosts = operation(
  'importHosts',
  z.strictObject({ rows: z.array(hostInput).min(1).max(20_000) }),
  (draft, { rows }) => {
    rows.forEach((row, i) => {
      const problem = row.name ? nameProblem(row.name) : null;
      if (problem) throw new Refusal('bad-input', nameMessage(problem), [], ['rows', i, 'name']);
      insertHost(draft, row);
    });
    return `${rows.length} fixed address${rows.length === 1 ? '' : 'es'} pasted in`;
  },
);
