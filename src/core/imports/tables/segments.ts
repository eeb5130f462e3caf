import {
  type IpAddress,
  type Prefix,
  formatAddress,
  formatPrefix,
  overlaps,
  parseAddress,
  parsePrefix,
} from '../../address';
import {
  type Plan,
  type Purpose,
  type Subnet,
  type Vlan,
  type WireCall,
  Refusal,
  purposes,
  gatewaysOf,
  subnetsOf,
  vlansOf,
} from '../../plan';
import { columnsIn, plainCell, rowsIn } from '../../edit';
import { purposeDefaults } from '../../model/segments';
import { type ReadRow, Reading, type TableKind, type Taking } from '../row';

/** Segments with their networks: new ones are added, of known ones what differs is changed, and nothing is taken away. */

type Column = 'vid' | 'code' | 'name' | 'purpose' | 'subnet' | 'gateway' | 'devices' | 'growth' | 'internet';

const heads: Readonly<Record<Column, readonly string[]>> = {
  vid: ['vlan', 'vlan id', 'vid', 'id', 'vlan number', 'tag'],
  code: ['code', 'short', 'abbreviation'],
  name: ['segment', 'name', 'vlan name', 'network name', 'description'],
  purpose: ['purpose', 'for', 'use', 'kind', 'type', 'role'],
  subnet: ['subnet', 'network', 'prefix', 'ip range', 'ipv4', 'cidr', 'address range', 'net'],
  gateway: ['gateway', 'default gateway', 'router', 'gw'],
  devices: ['devices now', 'devices', 'hosts', 'count', 'number of devices'],
  growth: ['growth %', 'growth', 'reserve'],
  internet: ['internet', 'internet access', 'online'],
};

/** Words by which people name what a segment is for. */
const words: readonly (readonly [Purpose, RegExp])[] = [
  ['guest', /guest|visitor|public|hotspot|waiting/],
  ['management', /manage|admin|mgmt|infra|network gear/],
  ['voice', /voice|voip|phone|telephon/],
  ['cameras', /camera|cctv|video/],
  ['servers', /server|storage|data ?cent/],
  ['supervisory', /supervis|scada|control room|operator/],
  ['control-cell', /cell|machine|plc|line|production|control/],
  ['building', /building|hvac|heating|door|alarm|lift/],
  ['iot', /iot|thing|smart|sensor|device/],
  ['exchange', /exchange|dmz/],
  ['transit', /transit|link net/],
  ['parking', /park|unused|black ?hole/],
  ['staff', /staff|office|employee|user|home|family/],
];
const purposeNamed = (text: string): Purpose | undefined => {
  const plain = plainCell(text);
  return (
    purposes.find((purpose) => purpose === plain.replaceAll(' ', '-')) ??
    words.find(([, pattern]) => pattern.test(plain))?.[0]
  );
};

const yes = (text: string): boolean | null =>
  /^(yes|y|true|1|x|allowed)$/i.test(text) ? true : /^(no|n|false|0|-|none)$/i.test(text) ? false : null;

interface Typed {
  readonly vid: number | null;
  readonly fields: Partial<Pick<Vlan, 'code' | 'name' | 'purpose' | 'devices' | 'growth' | 'internet'>>;
  readonly prefix: Prefix | null;
  readonly gateway: IpAddress | null;
}

function wholeIn(text: string, what: string, most: number, reading: Reading): number | null {
  if (text === '') return null;
  const value = /^\d{1,7}\s*%?$/.test(text) ? parseInt(text, 10) : null;
  if (value !== null && value <= most) return value;
  reading.repaired.push(`${what} “${text}” is no number from 0 to ${most}, left out`);
  return null;
}

function typedRow(value: (column: Column) => string, reading: Reading): Typed {
  const vidText = value('vid').replace(/^vlan\s*/i, '');
  const vid = vidText === '' ? null : /^\d{1,4}$/.test(vidText) ? Number(vidText) : NaN;
  if (vid !== null && !(vid >= 1 && vid <= 4094))
    reading.refused.push(`“${value('vid')}” is no VLAN id; write a number from 1 to 4094`);
  const typed = value('subnet') === '' ? null : parsePrefix(value('subnet'));
  if (value('subnet') !== '' && !typed)
    reading.refused.push(`“${value('subnet')}” is no network; write one like 10.20.30.0/24`);
  else if (typed && !typed.aligned)
    reading.repaired.push(`${value('subnet')} has host bits, read as ${formatPrefix(typed.prefix)}`);
  const gateway = value('gateway') === '' ? null : parseAddress(value('gateway').split(/[,\s]/)[0]!);
  if (value('gateway') !== '' && gateway === null)
    reading.repaired.push(`gateway “${value('gateway')}” is no address, left to the habit of the site`);
  const [name, code, purposeText] = [value('name'), value('code').toUpperCase(), value('purpose')];
  const purpose = purposeNamed(purposeText) ?? purposeNamed(name);
  if (purposeText !== '' && !purposeNamed(purposeText))
    reading.repaired.push(
      `nobody can tell what “${purposeText}” is for${purpose ? `, by its name taken as ${purpose}` : ''}`,
    );
  const codeFits = /^[A-Z0-9]{2,3}$/.test(code);
  if (code !== '' && !codeFits)
    reading.repaired.push(`code “${code}” needs two or three capital letters or digits, left out`);
  const internet = yes(value('internet'));
  const devices = wholeIn(value('devices'), 'devices', 1_000_000, reading);
  const growth = wholeIn(value('growth'), 'growth', 1000, reading);
  return {
    vid: Number.isNaN(vid) ? null : vid,
    fields: {
      ...(name && { name: name.slice(0, 60) }),
      ...(codeFits && { code }),
      // The purpose of a segment that is there is changed only where the table says one.
      ...(purpose && { purpose }),
      ...(devices !== null && { devices }),
      ...(growth !== null && { growth }),
      ...(internet !== null && { internet }),
    },
    prefix: typed?.prefix ?? null,
    gateway,
  };
}

/**
 * The segments a row may speak of: by its number, else by a network it has. Of several with one number, as separate LANs may have,
 * those that have its code, its name or its network too.
 */
function segmentsOf(plan: Plan, { vid, prefix, fields: { code, name } }: Typed): readonly Vlan[] {
  const has = ({ id }: Vlan) =>
    prefix !== null && subnetsOf(plan, id).some((one) => formatPrefix(one.prefix) === formatPrefix(prefix));
  if (vid === null) return [...plan.vlan.values()].filter(has).slice(0, 1);
  const narrower: readonly ((vlan: Vlan) => boolean)[] = [
    (vlan) => vlan.code === code,
    (vlan) => vlan.name === name,
    has,
  ];
  return narrower.reduce(
    (left, fits) => (left.length > 1 && left.some(fits) ? left.filter(fits) : left),
    vlansOf(plan).filter((vlan) => vlan.vid === vid),
  );
}

/** A network that one that is new would meet. */
function overlapping(plan: Plan, prefix: Prefix): Subnet | undefined {
  const all = [...plan.subnet.values()];
  return all.some((one) => formatPrefix(one.prefix) === formatPrefix(prefix))
    ? undefined
    : all.find((one) => overlaps(one.prefix, prefix));
}

function changing(plan: Plan, vlan: Vlan, typed: Typed, saidPurpose: boolean, reading: Reading): WireCall[] {
  const { purpose, ...others } = typed.fields;
  const wanted = { ...others, ...(purpose && saidPurpose && { purpose }) };
  const set = Object.fromEntries(
    Object.entries(wanted).filter(([field, value]) => vlan[field as keyof Vlan] !== value),
  );
  for (const [field, value] of Object.entries(set))
    reading.changed.push(`changes ${field} from ${String(vlan[field as keyof Vlan])} to ${String(value)}`);
  const subnet = subnetsOf(plan, vlan.id).find(
    ({ prefix }) => typed.prefix !== null && formatPrefix(prefix) === formatPrefix(typed.prefix),
  );
  const adds = typed.prefix !== null && !subnet;
  if (adds) reading.changed.push(`adds ${formatPrefix(typed.prefix)}`);
  const moved = subnet && otherGateway(plan, subnet, typed.gateway, reading);
  return [
    ...(Object.keys(set).length > 0
      ? [{ operation: 'edit', input: { table: 'vlan', id: vlan.id, set } }]
      : []),
    ...(adds ? [{ operation: 'addSubnet', input: { vlan: vlan.id, ...networkOf(typed) } }] : []),
    ...(moved ? [moved] : []),
  ];
}

/** Sets the gateway of a network that is there, where the table names another; of several none is taken for it. */
function otherGateway(
  plan: Plan,
  subnet: Subnet,
  gateway: IpAddress | null,
  reading: Reading,
): WireCall | null {
  if (gateway === null) return null;
  const are = gatewaysOf(plan, subnet.id).map(({ address }) => address);
  if (are.includes(gateway)) return null;
  if (are.length > 1) {
    reading.repaired.push(`it has ${are.length} gateways, left as they are`);
    return null;
  }
  const was = are[0] === undefined ? 'none' : formatAddress(are[0]);
  reading.changed.push(`changes gateway from ${was} to ${formatAddress(gateway)}`);
  return { operation: 'setGateway', input: { subnet: subnet.id, address: formatAddress(gateway) } };
}

const networkOf = ({ prefix, gateway }: Typed) => ({
  ...(prefix && { prefix: formatPrefix(prefix) }),
  ...(gateway !== null && { gateway: formatAddress(gateway) }),
});

function readSegment(taking: Taking, line: number, value: (column: Column) => string): ReadRow {
  const reading = new Reading();
  const typed = typedRow(value, reading);
  const cells = () => {
    const [vlan] = segmentsOf(taking.plan, typed);
    return [
      vlan ? String(vlan.vid) : value('vid'),
      vlan?.name ?? value('name'),
      vlan?.purpose ?? value('purpose'),
      typed.prefix ? formatPrefix(typed.prefix) : value('subnet'),
    ];
  };
  if (typed.vid === null && typed.prefix === null && !typed.fields.name && reading.refused.length === 0)
    reading.refused.push('it has neither VLAN id nor name nor network');
  if (reading.refused.length > 0) return reading.row(line, cells());
  const [known, ...others] = segmentsOf(taking.plan, typed);
  if (others.length > 0) {
    const all = [known!, ...others].map(({ code, name }) => `${code} ${name}`);
    reading.refused.push(`VLAN ${typed.vid} may be ${all.join(' or ')}; write its code`);
    return reading.row(line, cells());
  }
  const met = typed.prefix && overlapping(taking.plan, typed.prefix);
  if (met) {
    reading.refused.push(
      `${formatPrefix(typed.prefix!)} overlaps ${formatPrefix(met.prefix)} of ${taking.plan.vlan.get(met.vlan)!.name}`,
    );
    return reading.row(line, cells());
  }
  try {
    if (known) {
      const calls = changing(taking.plan, known, typed, value('purpose') !== '', reading);
      taking.take(...calls);
      return reading.row(line, cells(), calls.length === 0);
    }
    const { purpose = 'staff', ...fields } = typed.fields;
    if (!typed.fields.purpose)
      reading.repaired.push('it does not say what it is for, taken as staff without the Internet');
    taking.take({
      operation: 'addSegment',
      input: {
        purpose,
        name: purposeDefaults[purpose].label,
        ...(typed.vid !== null && { vid: typed.vid }),
        ...(!typed.fields.purpose && { internet: false }),
        ...fields,
        ...(typed.prefix ? networkOf(typed) : { prefix: null }),
      },
    });
    const made = typed.vid === null ? [...taking.plan.vlan.values()].at(-1) : undefined;
    if (made) reading.repaired.push(`VLAN id ${made.vid} given`);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    reading.refused.push(error.message);
  }
  return reading.row(line, cells());
}

export const segments: TableKind = {
  id: 'segments',
  title: 'segments',
  columns: [
    { id: 'vid', title: 'VLAN id' },
    { id: 'code', title: 'code' },
    { id: 'name', title: 'name' },
    { id: 'purpose', title: 'purpose' },
    { id: 'subnet', title: 'network' },
    { id: 'gateway', title: 'gateway' },
    { id: 'devices', title: 'devices now' },
    { id: 'growth', title: 'growth' },
    { id: 'internet', title: 'Internet' },
  ],
  heads: ['VLAN', 'Name', 'Purpose', 'Network'],
  guess: (cells) =>
    columnsIn<Column>(cells, {
      heads,
      looks: [
        ['subnet', (cell) => cell.includes('/') && parsePrefix(cell) !== null],
        ['gateway', (cell) => parseAddress(cell) !== null],
        ['vid', (cell) => /^(vlan\s*)?\d{1,4}$/i.test(cell)],
        ['purpose', (cell) => purposes.some((purpose) => purpose === plainCell(cell).replaceAll(' ', '-'))],
        ['name', (cell) => /[a-z]{2}/i.test(cell)],
      ],
      isRow: (cell) => parsePrefix(cell) !== null || parseAddress(cell) !== null || /^\d+$/.test(cell.trim()),
    }),
  *read(taking, cells, columns) {
    const rows: ReadRow[] = [];
    for (const { line, value } of rowsIn<string>(cells, columns)) {
      rows.push(readSegment(taking, line, value));
      yield;
    }
    return rows;
  },
};
