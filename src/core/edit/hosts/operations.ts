import * as z from 'zod';
import { type IpAddress, contains, familyOf, formatAddress, formatPrefix } from '../../address';
import {
  type Device,
  addressCodec,
  macCodec,
  type Draft,
  operation,
  type Plan,
  siteOf,
  type Address,
  type Subnet,
  kinds,
  Refusal,
  badInput,
  groupBy,
  hostOf,
  overtaken,
  settingOfOtherFamily,
} from '../../plan';
import { takePortsAlong } from '../gear/along';
import { insertCard, subnetsSettings } from './network-interface';
import { removeAddresses } from './remove';
import { layoutOfSubnet } from '../../model/segments';
import { portsTitle } from '../../model/wiring';
import { nameMessage, nameProblem, proposeHostName, nextFreeAddress } from '../../model/hosts';

export const hostInput = z.strictObject({
  subnet: z.string(),
  name: z.string().trim().optional(),
  kind: kinds.device.fields.kind.default('other'),
  address: addressCodec.nullable().optional(),
  mac: macCodec.nullable().optional(),
  assignment: kinds.address.fields.assignment.optional(),
  note: kinds.address.fields.note.default(''),
  ownLength: kinds.interface.fields.ownLength.optional(),
  ownGateway: kinds.interface.fields.ownGateway.optional(),
  ownDns: kinds.interface.fields.ownDns.optional(),
});

/** How the site keeps fixed addresses, when an entry does not say. */
export const usualAssignment = (plan: Plan): Address['assignment'] =>
  siteOf(plan).fixed === 'reservation' ? 'reservation' : 'static';

export function requireName(name: string): void {
  const problem = nameProblem(name);
  if (problem) throw new Refusal('bad-input', nameMessage(problem), [], ['name']);
}

/** Refuses an address outside its subnet. */
export function requireInside(subnet: Subnet, address: IpAddress): void {
  if (!contains(subnet.prefix, address))
    throw new Refusal(
      'bad-input',
      `${formatAddress(address)} lies outside ${formatPrefix(subnet.prefix)}; write an address inside it or leave the field empty for the next free one.`,
      [],
      ['address'],
    );
}

/** The next free address of a subnet; refuses where none is left. */
export function freeIn(
  plan: Plan,
  subnet: Subnet,
  kind: Device['kind'],
  assignment: Address['assignment'],
): IpAddress {
  const address = nextFreeAddress(plan, subnet, kind, assignment);
  if (address === null)
    throw new Refusal(
      'no-room',
      `${formatPrefix(subnet.prefix)} has no free address left; grow it or shorten its pool.`,
      [],
      ['address'],
    );
  return address;
}

/** Writes the three records of one fixed address: the device, its network card and the address. */
export function insertHost(draft: Draft, input: z.output<typeof hostInput>): Address {
  const subnet = draft.need('subnet', input.subnet);
  const assignment = input.assignment ?? usualAssignment(draft.plan);
  const address = input.address ?? freeIn(draft.plan, subnet, input.kind, assignment);
  const set = { ownLength: input.ownLength ?? null, ownGateway: input.ownGateway ?? null };
  const refused = settingOfOtherFamily([familyOf(address)], set);
  if (refused) throw badInput(refused.message, refused.field);
  const name = input.name || proposeHostName(draft.plan, subnet, input.kind);
  const device = draft.insert('device', { name, kind: input.kind, firewall: 'unknown' });
  const item = insertCard(draft, device.id, {
    mac: input.mac ?? null,
    ...set,
    ownDns: input.ownDns ?? null,
  });
  return draft.insert('address', {
    subnet: subnet.id,
    address,
    interface: item.id,
    assignment,
    gateway: false,
    note: input.note,
  });
}

export const addHost = operation('addHost', hostInput, (draft, input) => {
  const subnet = draft.need('subnet', input.subnet);
  if (input.name) requireName(input.name);
  if (input.address != null) requireInside(subnet, input.address);
  const address = insertHost(draft, input);
  return `${hostOf(draft.plan, address).device.name} added at ${formatAddress(address.address)}`;
});

const changedMeanwhile = (what: string, seen: string, now: string, id: string) =>
  new Refusal('changed', `${what} was ${seen} when you edited it and is ${now} now.`, [
    { table: 'address', id },
  ]);

/** Gives a host another address. It moves to the subnet that holds the address, when another one of the site does. */
export const moveHost = operation(
  'moveHost',
  z.strictObject({ address: z.string(), to: addressCodec, seen: addressCodec.optional() }),
  (draft, { address: id, to, seen }) => {
    const address = draft.need('address', id);
    const { device } = hostOf(draft.plan, address);
    if (overtaken(address.address, seen, to))
      throw changedMeanwhile(
        `${device.name}: the address`,
        formatAddress(seen),
        formatAddress(address.address),
        id,
      );
    const own = draft.need('subnet', address.subnet);
    const home: Subnet | undefined = contains(own.prefix, to)
      ? own
      : [...draft.plan.subnet.values()].find((subnet) => contains(subnet.prefix, to));
    draft.update('address', id, { address: to, subnet: (home ?? own).id });
    return `${device.name}: ${formatAddress(address.address)} → ${formatAddress(to)}${along(draft, [address], home ?? own)}`;
  },
);

export const renameHost = operation(
  'renameHost',
  z.strictObject({ address: z.string(), name: z.string().trim(), seen: z.string().optional() }),
  (draft, { address: id, name, seen }) => {
    const { device } = hostOf(draft.plan, draft.need('address', id));
    if (overtaken(device.name, seen, name)) throw changedMeanwhile('The host name', seen, device.name, id);
    requireName(name);
    draft.update('device', device.id, { name });
    return `${device.name} renamed ${name}`;
  },
);

export const setAssignment = operation(
  'setAssignment',
  z.strictObject({ addresses: z.array(z.string()).min(1), assignment: kinds.address.fields.assignment }),
  (draft, { addresses, assignment }) => {
    for (const id of addresses) draft.update('address', id, { assignment });
    const first = hostOf(draft.plan, draft.need('address', addresses[0]!)).device.name;
    const who = addresses.length === 1 ? first : `${addresses.length} addresses`;
    return `${who}: ${assignment === 'static' ? 'static on the device' : assignment === 'virtual' ? 'virtual' : 'reserved by MAC'}`;
  },
);

export const removeHosts = operation(
  'removeHosts',
  z.strictObject({ addresses: z.array(z.string()).min(1) }),
  (draft, input) => {
    const names = input.addresses.map((id) => hostOf(draft.plan, draft.need('address', id)).device.name);
    removeAddresses(draft, input.addresses);
    return names.length === 1 ? `${names[0]} removed` : `${names.length} fixed addresses removed`;
  },
);

/** Drops settings of a host that differ from its subnet's: from then on it has the subnet's. */
export const useSubnetSettings = operation(
  'useSubnetSettings',
  z.strictObject({ interface: z.string() }),
  (draft, input) => {
    const item = draft.need('interface', input.interface);
    const device = draft.need('device', item.device);
    draft.update('interface', item.id, subnetsSettings);
    return `${device.name}: mask, gateway and DNS of its subnet`;
  },
);

/** Takes ports along with hosts that moved to a subnet from where they were; says which. */
function along(draft: Draft, were: readonly Address[], { vlan: to }: Subnet): string {
  const { plan } = draft;
  const ports = [...groupBy(were, ({ subnet }) => plan.subnet.get(subnet)!.vlan)].flatMap(([from, some]) => {
    const devices = new Set(some.map((address) => hostOf(plan, address).device.id));
    return from === to ? [] : takePortsAlong(draft, devices, from, to);
  });
  const whom = were.length === 1 ? 'it' : 'them';
  return ports.length > 0 ? `, and with ${whom} ${portsTitle(plan, ports)}` : '';
}

/** Moves a host to the segment of another purpose that fits its kind, at the next free address there. */
export const moveToSubnet = operation(
  'moveToSubnet',
  z.strictObject({ address: z.string(), subnet: z.string() }),
  (draft, input) => {
    const address = draft.need('address', input.address);
    const subnet = draft.need('subnet', input.subnet);
    const [place] = putInSubnet(draft, [address], subnet);
    const { device } = hostOf(draft.plan, address);
    return `${device.name}: ${formatAddress(address.address)} → ${formatAddress(place!)} in ${draft.need('vlan', subnet.vlan).name}${along(draft, [address], subnet)}`;
  },
);

/** Gives hosts the next free addresses of a subnet, in the order given; returns them. Throws a Refusal (no-room). */
function putInSubnet(draft: Draft, addresses: readonly Address[], subnet: Subnet): IpAddress[] {
  // As it is before any of them comes; what they are given is skipped from then on.
  const { plan } = draft;
  const layout = layoutOfSubnet(plan, subnet);
  const given = new Set<IpAddress>();
  for (const address of addresses) {
    const { device } = hostOf(plan, address);
    const place = nextFreeAddress(plan, subnet, device.kind, address.assignment, given, layout);
    if (place === null)
      throw new Refusal(
        'no-room',
        `${formatPrefix(subnet.prefix)} has no free address left for ${device.name}.`,
      );
    draft.update('address', address.id, { address: place, subnet: subnet.id });
    given.add(place);
  }
  return [...given];
}

const many = z.array(z.string()).min(1);

/** Moves hosts to another subnet, each to the next free address there, in the order given: all of them or none. */
export const moveHostsToSubnet = operation(
  'moveHostsToSubnet',
  z.strictObject({ addresses: many, subnet: z.string() }),
  (draft, { addresses, subnet: id }) => {
    const subnet = draft.need('subnet', id);
    const { name } = draft.need('vlan', subnet.vlan);
    const moving = addresses
      .map((each) => draft.need('address', each))
      .filter((address) => address.subnet !== id);
    if (moving.length === 0) throw badInput(`They are in ${name} already.`, 'subnet');
    putInSubnet(draft, moving, subnet);
    return `${moving.length === 1 ? hostOf(draft.plan, moving[0]!).device.name : `${moving.length} fixed addresses`} moved to ${name}${along(draft, moving, subnet)}`;
  },
);

/** Says what kind of thing hosts are. */
export const setKindOfHosts = operation(
  'setKindOfHosts',
  z.strictObject({ addresses: many, kind: kinds.device.fields.kind }),
  (draft, { addresses, kind }) => {
    const devices = new Set(addresses.map((id) => hostOf(draft.plan, draft.need('address', id)).device.id));
    for (const id of devices) draft.update('device', id, { kind });
    const [first] = devices;
    return `${devices.size === 1 ? draft.need('device', first!).name : `${devices.size} devices`}: ${kind.replaceAll('-', ' ')}`;
  },
);

/** Moves the host that stands on a gateway's address, or any other host, to the next free address. */
export const moveToFree = operation('moveToFree', z.strictObject({ address: z.string() }), (draft, input) => {
  const address = draft.need('address', input.address);
  const [place] = putInSubnet(draft, [address], draft.need('subnet', address.subnet));
  const { device } = hostOf(draft.plan, address);
  return `${device.name}: ${formatAddress(address.address)} → ${formatAddress(place!)}`;
});

/** Names a host by the site's pattern. */
export const renameByPattern = operation(
  'renameByPattern',
  z.strictObject({ address: z.string() }),
  (draft, input) => {
    const address = draft.need('address', input.address);
    const subnet = draft.need('subnet', address.subnet);
    const device = draft.need('device', draft.need('interface', address.interface).device);
    const name = proposeHostName(draft.plan, subnet, device.kind);
    draft.update('device', device.id, { name });
    return `${device.name} renamed ${name}`;
  },
);
