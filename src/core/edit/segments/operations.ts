import * as z from 'zod';
import { type IpAddress, type Prefix, formatAddress, formatPrefix, prefixFamily } from '../../address';
import {
  type RecordRef,
  type TableName,
  removalOf,
  removeRecord,
  addressCodec,
  prefixCodec,
  type Draft,
  operation,
  type Plan,
  type Port,
  portTitle,
  siteOf,
  putBehind,
  rankBetween,
  type Device,
  type Subnet,
  kinds,
  Refusal,
  addressesOf,
  byName,
  gatewaysOf,
  interfacesOf,
  routersOf,
  subnetOf,
  subnetsOf,
  vlansOf,
  overtaken,
} from '../../plan';
import { insertRouted } from '../hosts/network-interface';
import { removeAddresses } from '../hosts/remove';
import { hasPool, proposePool, proposeSegment } from './propose';
import { habitualGateway } from '../../model/segments';

const fields = kinds.vlan.fields;

/** The box that routes between segments; made when the plan has none, so that a gateway has something to stand on. */
function routingDevice(draft: Draft): Device {
  return (
    routersOf(draft.plan)[0] ?? draft.insert('device', { name: 'gw-1', kind: 'gateway', firewall: 'unknown' })
  );
}

/** The routing device's interface in a VLAN, made when it has none. */
export function gatewayInterface(draft: Draft, vlan: string): string {
  const device = routingDevice(draft);
  const known = interfacesOf(draft.plan, device.id).find((item) => item.vlan === vlan);
  if (known) return known.id;
  return insertRouted(draft, device.id, vlan).id;
}

/** Sets, moves or (with null) removes the gateway address of a subnet. */
export function putGateway(draft: Draft, subnet: Subnet, address: IpAddress | null): void {
  const known = gatewaysOf(draft.plan, subnet.id)[0];
  if (address === null) {
    if (known) removeAddresses(draft, [known.id]);
  } else if (known) draft.update('address', known.id, { address });
  else {
    // Who routes the segment in one family does so in the other.
    const item =
      subnetsOf(draft.plan, subnet.vlan).flatMap(({ id }) => gatewaysOf(draft.plan, id))[0]?.interface ??
      gatewayInterface(draft, subnet.vlan);
    draft.insert('address', {
      subnet: subnet.id,
      address,
      interface: item,
      assignment: 'static',
      gateway: true,
      note: '',
    });
  }
}

/** A subnet of a segment with its gateway, the gateway as its DNS server, and its pool where it has one. */
export function insertSubnet(
  draft: Draft,
  vlan: string,
  prefix: Prefix,
  gateway: IpAddress | null,
  pool: ReturnType<typeof proposePool>,
): Subnet {
  const subnet = draft.insert('subnet', {
    vlan,
    prefix,
    pinned: false,
    dns: [],
    domain: '',
    advertised: true,
  });
  if (gateway !== null) putGateway(draft, subnet, gateway);
  const server = gatewaysOf(draft.plan, subnet.id)[0]?.interface;
  if (server) draft.update('subnet', subnet.id, { dns: [{ interface: server }] });
  if (pool)
    draft.insert('pool', {
      subnet: subnet.id,
      ...pool.range,
      lease: pool.lease,
      servedBy: server ? [server] : [],
    });
  return subnet;
}

export const addSegment = operation(
  'addSegment',
  z.strictObject({
    purpose: fields.purpose,
    lan: z.string().optional(),
    vid: fields.vid.optional(),
    name: fields.name.optional(),
    code: fields.code.optional(),
    colour: fields.colour.optional(),
    internet: fields.internet.optional(),
    devices: fields.devices.optional(),
    growth: fields.growth.optional(),
    prefix: prefixCodec.nullable().optional(),
    gateway: addressCodec.nullable().optional(),
  }),
  (draft, wish) => {
    const proposal = proposeSegment(draft.plan, wish);
    if (proposal.vid === null)
      throw new Refusal(
        'no-room',
        'All 4,094 VLAN ids of this LAN are in use; remove a segment first.',
        [],
        ['vid'],
      );
    if (proposal.noRoomFor !== null)
      throw new Refusal(
        'no-room',
        `No free block of the address space holds a /${proposal.noRoomFor}; widen the space in Brief, use Fit, or type a subnet.`,
        [],
        ['prefix'],
      );
    const last = vlansOf(draft.plan).at(-1);
    const vlan = draft.insert('vlan', {
      lan: proposal.lan,
      vid: proposal.vid,
      code: proposal.code,
      name: proposal.name,
      colour: proposal.colour,
      purpose: wish.purpose,
      internet: proposal.internet,
      devices: proposal.devices,
      growth: proposal.growth,
      transient: null,
      rank: rankBetween(last?.rank ?? null, null),
    });
    if (proposal.prefix === null) return `${vlan.name} added as VLAN ${vlan.vid}, layer 2 only`;
    const pool = proposal.pool && { range: proposal.pool, lease: proposal.lease };
    const subnet = insertSubnet(draft, vlan.id, proposal.prefix, proposal.gateway, pool);
    return `${vlan.name} added as VLAN ${vlan.vid}, ${formatPrefix(subnet.prefix)}`;
  },
);

/** What goes when a segment goes, for saying so before it happens. */
export interface Hanging {
  readonly subnets: number;
  readonly pools: number;
  readonly exclusions: number;
  readonly fixed: number;
  readonly interfaces: number;
  /** By their names: ports that carry nothing else and are undecided afterwards, and trunks that carry it no more. */
  readonly undecided: readonly string[];
  readonly trunks: readonly string[];
}

export function hangingOn(plan: Plan, vlan: string): Hanging {
  const { removed, changed } = removalOf(plan, [{ table: 'vlan', id: vlan }]);
  const count = (list: readonly RecordRef[], table: TableName) =>
    list.filter((ref) => ref.table === table).length;
  const fixed = removed.filter(({ table, id }) => table === 'address' && !plan.address.get(id)!.gateway);
  const ports = changed.flatMap(({ table, id }) => (table === 'port' ? [plan.port.get(id)!] : []));
  const titles = (list: readonly Port[]) => list.map((port) => portTitle(plan, port)).sort(byName);
  return {
    subnets: count(removed, 'subnet'),
    pools: count(removed, 'pool'),
    exclusions: count(removed, 'exclusion'),
    fixed: fixed.length,
    interfaces: count(removed, 'interface'),
    undecided: titles(ports.filter(({ role }) => role === 'access')),
    trunks: titles(ports.filter(({ role }) => role !== 'access')),
  };
}

function dropSubnet(draft: Draft, subnet: Subnet): number {
  const addresses = addressesOf(draft.plan, subnet.id);
  removeAddresses(
    draft,
    addresses.map(({ id }) => id),
  );
  removeRecord(draft, { table: 'subnet', id: subnet.id });
  return addresses.filter((address) => !address.gateway).length;
}

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

export const removeSegment = operation(
  'removeSegment',
  z.strictObject({ vlan: z.string() }),
  (draft, input) => {
    const vlan = draft.need('vlan', input.vlan);
    const fixed = subnetsOf(draft.plan, vlan.id).reduce((sum, subnet) => sum + dropSubnet(draft, subnet), 0);
    removeRecord(draft, { table: 'vlan', id: vlan.id });
    return `${vlan.name} (VLAN ${vlan.vid}) removed${fixed ? ` with ${counted(fixed, 'fixed address', 'fixed addresses')}` : ''}`;
  },
);

export const moveSegment = operation(
  'moveSegment',
  z.strictObject({ vlan: z.string(), after: z.string().nullable() }),
  (draft, { vlan: id, after }) => {
    const vlan = draft.need('vlan', id);
    putBehind(draft, 'vlan', vlansOf(draft.plan), id, after);
    return `${vlan.name} moved ${after === null ? 'to the top' : `below ${draft.need('vlan', after).name}`}`;
  },
);

export const addSubnet = operation(
  'addSubnet',
  z.strictObject({ vlan: z.string(), prefix: prefixCodec, gateway: addressCodec.nullable().optional() }),
  (draft, { vlan: id, prefix, gateway }) => {
    const vlan = draft.need('vlan', id);
    const site = siteOf(draft.plan);
    const address = gateway === undefined ? habitualGateway(site, prefix) : gateway;
    const first = prefixFamily(prefix) === 4 && !subnetOf(draft.plan, id, 4);
    const pool = first && hasPool(site, vlan.purpose) ? proposePool(site, prefix, vlan) : null;
    insertSubnet(draft, id, prefix, address, pool);
    return `${vlan.name}: ${prefixFamily(prefix) === 4 ? 'IPv4' : 'IPv6'} subnet ${formatPrefix(prefix)} added`;
  },
);

export const removeSubnet = operation(
  'removeSubnet',
  z.strictObject({ subnet: z.string() }),
  (draft, input) => {
    const subnet = draft.need('subnet', input.subnet);
    const vlan = draft.need('vlan', subnet.vlan);
    const fixed = dropSubnet(draft, subnet);
    return `${vlan.name}: ${formatPrefix(subnet.prefix)} removed${fixed ? ` with ${counted(fixed, 'fixed address', 'fixed addresses')}` : ''}`;
  },
);

export const setGateway = operation(
  'setGateway',
  z.strictObject({
    subnet: z.string(),
    address: addressCodec.nullable(),
    seen: addressCodec.nullable().optional(),
  }),
  (draft, { subnet: id, address, seen }) => {
    const subnet = draft.need('subnet', id);
    const vlan = draft.need('vlan', subnet.vlan);
    const now = gatewaysOf(draft.plan, id)[0]?.address ?? null;
    if (overtaken(now, seen, address))
      throw new Refusal(
        'changed',
        `${vlan.name}: the gateway was ${seen === null ? 'none' : formatAddress(seen)} when you edited it and is ${now === null ? 'none' : formatAddress(now)} now.`,
        [{ table: 'subnet', id }],
        ['address'],
      );
    putGateway(draft, subnet, address);
    return `${vlan.name}: gateway ${now === null ? 'none' : formatAddress(now)} → ${address === null ? 'none' : formatAddress(address)}`;
  },
);
