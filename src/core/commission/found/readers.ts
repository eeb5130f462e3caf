import Papa from 'papaparse';
import { parseAddress, parseMac } from '../../address';
import { badInput } from '../../plan';
import type { Row } from './sighting';

/** The lists that a site shows, in the plain-text forms of general tools, as CSV and as JSON. */

export type SourceKind = 'leases' | 'neighbours' | 'mac-table' | 'scan' | 'interfaces' | 'table';
export const sourceWords: Readonly<Record<SourceKind, string>> = {
  leases: 'leases of a DHCP server',
  neighbours: 'neighbours (ARP, NDP)',
  'mac-table': 'a MAC table',
  scan: 'a scan',
  interfaces: 'interfaces of a box',
  table: 'a table',
};

export interface Reader {
  readonly kind: SourceKind;
  /** Does a line look like one of this list? */
  readonly looks: RegExp;
  readonly read: (lines: readonly string[]) => readonly Row[];
}

const IP = String.raw`[0-9a-fA-F:.]{3,45}`;
const MAC = String.raw`[0-9a-fA-F]{1,2}(?:[:-][0-9a-fA-F]{1,2}){5}`;

/** A reader of lists that have one device in each line; lines that do not match say nothing. */
const lineReader = (
  kind: SourceKind,
  looks: RegExp,
  rowOf: (groups: Readonly<Record<string, string | undefined>>) => Omit<Row, 'line'> | null,
): Reader => ({
  kind,
  looks,
  read: (lines) =>
    lines.flatMap((text, at): Row[] => {
      const match = looks.exec(text);
      const row = match && rowOf(match.groups ?? {});
      return row ? [{ line: at + 1, ...row }] : [];
    }),
});

const named = (groups: Readonly<Record<string, string | undefined>>): Omit<Row, 'line'> =>
  Object.fromEntries(Object.entries(groups).filter(([, value]) => value !== undefined && value !== ''));

/** Leases as blocks in braces, each over several lines. */
const leaseBlocks: Reader = {
  kind: 'leases',
  looks: new RegExp(String.raw`^\s*lease\s+(?<address>${IP})\s*\{`),
  read(lines) {
    const rows: Row[] = [];
    let block: { line: number; text: string } | null = null;
    lines.forEach((text, at) => {
      if (this.looks.test(text)) block = { line: at + 1, text: '' };
      if (!block) return;
      block.text += `${text}\n`;
      if (!text.includes('}')) return;
      const whole = block.text;
      const free = /binding state (free|expired|backup|abandoned)/.test(whole);
      const of = (pattern: RegExp) => pattern.exec(whole)?.[1];
      if (!free)
        rows.push({
          line: block.line,
          ...named({
            address: of(new RegExp(String.raw`lease\s+(${IP})`)),
            mac: of(new RegExp(String.raw`hardware ethernet\s+(${MAC})`)),
            name: of(/client-hostname\s+"([^"]*)"/),
          }),
        });
      block = null;
    });
    return rows;
  },
};

/** A scan in sentences: who answered, and in a line below its MAC address. */
const scanReport: Reader = {
  kind: 'scan',
  looks: /^\S+ scan report for /,
  read(lines) {
    const rows: Row[] = [];
    lines.forEach((text, at) => {
      const host = /scan report for (?:(?<name>\S+) \((?<inner>[^)]+)\)|(?<address>\S+))/.exec(text)?.groups;
      if (host)
        rows.push({ line: at + 1, ...named({ name: host.name, address: host.inner ?? host.address }) });
      const mac = new RegExp(String.raw`^MAC Address: (${MAC})`).exec(text)?.[1];
      const last = rows.at(-1);
      if (mac && last) rows[rows.length - 1] = { ...last, mac };
    });
    return rows;
  },
};

const STATES = 'REACHABLE|STALE|DELAY|PROBE|PERMANENT|NOARP|NONE';

export const readers: readonly Reader[] = [
  leaseBlocks,
  scanReport,
  // Expiry, MAC address, address, name and client id.
  lineReader(
    'leases',
    new RegExp(String.raw`^\d{1,12} (?<mac>${MAC}) (?<address>${IP}) (?<name>\S+)`),
    named,
  ),
  lineReader(
    'neighbours',
    new RegExp(String.raw`^(?<address>${IP}) dev \S+ lladdr (?<mac>${MAC})\b.*\b(?:${STATES})`),
    named,
  ),
  lineReader(
    'neighbours',
    new RegExp(String.raw`^(?<name>\S+) \((?<address>${IP})\) at (?<mac>${MAC})\b`),
    named,
  ),
  lineReader(
    'neighbours',
    new RegExp(String.raw`^(?<address>${IP})\s+(?:ether|0x1)\s+(?:0x\d+\s+)?(?<mac>${MAC})\b`),
    named,
  ),
  // A card of the box itself is no device at its port.
  lineReader(
    'mac-table',
    new RegExp(
      String.raw`^(?<mac>${MAC}) dev (?<port>\S+)(?: vlan (?<vlan>\d+))?(?<own>(?!.*extern_learn).*(?:permanent|self))?`,
    ),
    ({ own, ...groups }) => (own ? null : named(groups)),
  ),
  lineReader(
    'interfaces',
    new RegExp(String.raw`^(?<port>\S+)\s+(?:UP|DOWN|UNKNOWN)\s+(?<address>${IP}\/\d+)`),
    named,
  ),
];

/** Columns of a table by the heads people and programs give them. */
const heads: Readonly<Record<Exclude<keyof Row, 'line'>, readonly string[]>> = {
  mac: [
    'mac',
    'mac address',
    'hardware address',
    'hwaddress',
    'lladdr',
    'ethernet',
    'physical address',
    'hw-address',
  ],
  address: ['address', 'ip', 'ip address', 'ipv4', 'ipv4 address', 'ip-address', 'dst', 'ipv6'],
  name: ['name', 'host', 'hostname', 'host name', 'device', 'client', 'host-name'],
  vlan: ['vlan', 'vid', 'vlan id', 'vlanid'],
  box: ['switch', 'box', 'bridge', 'seen at'],
  port: ['port', 'interface', 'ifname', 'if', 'socket'],
  server: ['server', 'dhcp server', 'server identifier', 'server id'],
};
const columns = Object.keys(heads) as (keyof typeof heads)[];
const columnOf = (head: string): keyof typeof heads | undefined =>
  columns.find((column) => heads[column].includes(head.trim().toLowerCase().replaceAll('_', ' ')));

const kindOfColumns = (found: readonly (string | undefined)[]): SourceKind =>
  found.includes('port') && !found.includes('address') ? 'mac-table' : 'table';

/** A table: by its head row, or where there is none by what stands in its cells. */
export function readTable(text: string): { readonly kind: SourceKind; readonly rows: readonly Row[] } {
  const spaced = !/[,;\t|]/.test(text);
  // Columns stand apart by two spaces or more where a head has two words.
  const gap = /\S\s{2,}\S/.test(text) ? /\s{2,}/ : /\s+/;
  const cells = spaced
    ? text.split(/\r?\n/).map((line) => line.trim().split(gap))
    : Papa.parse<string[]>(text, {
        delimiter: text.includes('\t') ? '\t' : '',
        delimitersToGuess: [',', ';', '|'],
      }).data;
  const headAt = cells.findIndex((row) => row.filter((cell) => columnOf(cell)).length > 1);
  const order = headAt < 0 ? null : cells[headAt]!.map(columnOf);
  const rows = cells.flatMap((row, at): Row[] => {
    if (at <= headAt || row.every((cell) => cell.trim() === '')) return [];
    const pairs = row.flatMap((cell, i): [string, string][] => {
      const value = cell.trim();
      const column = order
        ? order[i]
        : parseMac(value) !== null
          ? 'mac'
          : parseAddress(value) !== null
            ? 'address'
            : undefined;
      return column && value !== '' ? [[column, value]] : [];
    });
    return pairs.length > 0 ? [{ line: at + 1, ...Object.fromEntries(pairs) }] : [];
  });
  return { kind: order ? kindOfColumns(order) : 'table', rows };
}

/** A list of objects, as tools write it for other programs. */
export function readJson(text: string): { readonly kind: SourceKind; readonly rows: readonly Row[] } {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw badInput(
      'This begins like JSON and does not end like it; copy all of it, from the first bracket to the last.',
      'text',
    );
  }
  const items = (Array.isArray(data) ? data : Object.values(data as object).find(Array.isArray)) as
    readonly unknown[] | undefined;
  if (!items) throw badInput('This is JSON without a list in it; paste a list of devices.', 'text');
  let found: readonly (string | undefined)[] = [];
  const rows = items.flatMap((item, at): Row[] => {
    if (typeof item !== 'object' || item === null) return [];
    // A card of the box itself is no device at its port.
    if ('state' in item && item.state === 'permanent') return [];
    const pairs = Object.entries(item).flatMap(([key, value]): [string, string][] => {
      const column = columnOf(key) ?? (key === 'hwaddr' ? 'mac' : undefined);
      return column && (typeof value === 'string' || typeof value === 'number') ? [[column, `${value}`]] : [];
    });
    found = [...found, ...pairs.map(([column]) => column)];
    return pairs.length > 0 ? [{ line: at + 1, ...Object.fromEntries(pairs) }] : [];
  });
  const isFdb = found.includes('mac') && found.includes('port') && !found.includes('address');
  return { kind: isFdb ? 'mac-table' : 'table', rows };
}
