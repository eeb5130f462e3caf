import {
  type IpAddress,
  familyOf,
  formatAddress,
  contains,
  formatPrefix,
  maskOf,
  networkOf,
  inRange,
  isGroupMac,
} from '../../address';
import { nameProblem, ownSettings } from '../../model/hosts';
import {
  type Group,
  derive,
  memo,
  type Plan,
  type Device,
  type DeviceKind,
  type Pool,
  type Vlan,
  dnsOf,
  subnetOf,
  plainVlansOf,
  type Remedy,
} from '../../plan';
import { subnetSettings } from '../../rehearse';
import type { Report, SubnetCheck } from '../finding';
import type { SubnetHost, SubnetView } from '../subnet-view';

const on = (host: SubnetHost) => ({ table: 'address' as const, id: host.address.id });
const moveToFree = (host: SubnetHost): Remedy => ({
  label: 'Move it to the next free address',
  operation: 'moveToFree',
  input: { address: host.address.id },
});
const at = (host: SubnetHost) => formatAddress(host.address.address);

const addressOutside: SubnetCheck = {
  id: 'address-outside',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { subnet, hosts }) {
    for (const host of hosts)
      if (!contains(subnet.prefix, host.address.address))
        yield {
          severity: 'stop',
          on: on(host),
          what: `${host.device.name} is outside its subnet`,
          because: `${at(host)} does not lie in ${formatPrefix(subnet.prefix)}.`,
          remedies: [moveToFree(host)],
        };
  },
};

const addressOnEdge: SubnetCheck = {
  id: 'address-on-edge',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { subnet, hosts, first, last }) {
    const usable = { start: first, end: last };
    for (const host of hosts) {
      const value = host.address.address;
      if (inRange(usable, value) || !contains(subnet.prefix, value)) continue;
      const edge = value === subnet.prefix.address ? 'network' : 'broadcast';
      yield {
        severity: 'stop',
        on: on(host),
        what: `${host.device.name} is on the ${edge} address`,
        because: `${at(host)} is the ${edge} address of ${formatPrefix(subnet.prefix)} and cannot be a host.`,
        remedies: [moveToFree(host)],
      };
    }
  },
};

const addressTwice: SubnetCheck = {
  id: 'address-twice',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { hosts }) {
    for (let i = 1; i < hosts.length; i++) {
      const host = hosts[i]!;
      const other = hosts[i - 1]!;
      if (host.address.address !== other.address.address) continue;
      if (host.address.assignment === 'virtual' && other.address.assignment === 'virtual') continue;
      yield {
        severity: 'stop',
        on: on(host),
        also: [on(other)],
        what: `${at(host)} is given twice`,
        because: `${other.device.name} and ${host.device.name} both have ${at(host)}; whichever answers first wins.`,
        remedies: [{ ...moveToFree(host), label: `Move ${host.device.name} to the next free address` }],
      };
    }
  },
};

/** Of two pools that hold a host both would have to be cut. */
const cutAround = ({ id }: Pool, second: Pool | undefined): Remedy[] =>
  second ? [] : [{ label: 'Cut the pool around it', operation: 'trimPool', input: { pool: id } }];

const staticInPool: SubnetCheck = {
  id: 'static-in-pool',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { hosts, pools, exclusions, site, subnet }) {
    if (pools.length === 0) return;
    for (const host of hosts) {
      if (host.address.assignment === 'reservation') continue;
      const [pool, second] = pools.filter((candidate) => inRange(candidate, host.address.address));
      if (!pool || exclusions.some((range) => inRange(range, host.address.address))) continue;
      const reserve =
        host.interface.mac !== null && site.reservationInPool && host.address.assignment === 'static';
      yield {
        severity: 'fix',
        on: on(host),
        also: [{ table: 'pool', id: pool.id }],
        what: `${host.device.name} ${at(host)} is static inside the pool`,
        because: `The pool ${formatAddress(pool.start)}–${formatAddress(pool.end)} holds it: the server may lease ${at(host)} to another device.`,
        remedies: [
          ...(reserve
            ? [
                {
                  label: 'Reserve it for its MAC',
                  operation: 'setAssignment',
                  input: { addresses: [host.address.id], assignment: 'reservation' },
                } satisfies Remedy,
              ]
            : []),
          moveToFree(host),
          ...cutAround(pool, second),
          ...(contains(subnet.prefix, host.address.address)
            ? [
                {
                  label: 'Exclude it from the pool',
                  operation: 'addExclusion',
                  input: { subnet: subnet.id, start: at(host), end: at(host), why: host.device.name },
                } satisfies Remedy,
              ]
            : []),
        ],
      };
    }
  },
};

const reservationInPool: SubnetCheck = {
  id: 'reservation-in-pool',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { hosts, pools, site }) {
    if (site.reservationInPool) return;
    for (const host of hosts) {
      if (host.address.assignment !== 'reservation') continue;
      const [pool, second] = pools.filter((candidate) => inRange(candidate, host.address.address));
      if (!pool) continue;
      yield {
        severity: 'fix',
        on: on(host),
        also: [{ table: 'pool', id: pool.id }],
        what: `${host.device.name} is reserved inside the pool`,
        because: `This site’s DHCP server takes reservations only outside the pool; ${at(host)} lies in ${formatAddress(pool.start)}–${formatAddress(pool.end)}.`,
        remedies: [moveToFree(host), ...cutAround(pool, second)],
      };
    }
  },
};

const reservationWithoutMac: SubnetCheck = {
  id: 'reservation-without-mac',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { hosts }) {
    for (const host of hosts) {
      if (host.address.assignment !== 'reservation' || host.interface.mac !== null) continue;
      yield {
        severity: 'fix',
        on: on(host),
        what: `${host.device.name} is reserved without a MAC`,
        because: `The server knows ${at(host)} is kept, but not for which network card.`,
        remedies: [
          {
            label: 'Make it static on the device',
            operation: 'setAssignment',
            input: { addresses: [host.address.id], assignment: 'static' },
          },
        ],
      };
    }
  },
};

/**
 * The few devices that are of some kind, worked out by group: a host is looked up among them and not among all devices.
 */
function fewDevices(which: (device: Device) => boolean): (plan: Plan) => ReadonlySet<string> {
  const inGroup = memo((devices: Group<Device>) => [...devices.values()].filter(which).map(({ id }) => id));
  return derive((plan) => {
    const found = new Set<string>();
    for (const group of plan.device.allGroups()) for (const id of inGroup(group)) found.add(id);
    return found;
  });
}

const badlyNamed = fewDevices(({ name }) => nameProblem(name) !== null);
const safetyDevices = fewDevices(({ kind }) => kind === 'safety-controller');

const nameNotAllowed: SubnetCheck = {
  id: 'name-not-allowed',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, { hosts }) {
    const bad = badlyNamed(plan);
    for (const host of hosts) {
      if (!bad.has(host.interface.device)) continue;
      const problem = nameProblem(host.device.name);
      if (!problem) continue;
      yield {
        severity: 'fix',
        on: on(host),
        what: `The name “${host.device.name}” is not allowed`,
        because: `${problem.why} (RFC 1123 section 2.1).`,
        remedies: [
          problem.repair
            ? {
                label: `Rename it ${problem.repair}`,
                operation: 'renameHost',
                input: { address: host.address.id, name: problem.repair, seen: host.device.name },
              }
            : {
                label: 'Name it by the site’s pattern',
                operation: 'renameByPattern',
                input: { address: host.address.id },
              },
        ],
      };
    }
  },
};

const groupMac: SubnetCheck = {
  id: 'mac-group',
  station: 'addresses',
  scope: 'subnet',
  *find(_plan, { hosts }) {
    for (const host of hosts) {
      const { mac } = host.interface;
      if (mac === null || !isGroupMac(mac)) continue;
      yield {
        severity: 'fix',
        on: on(host),
        what: `${host.device.name} has a group MAC address`,
        because: `${mac} has the group bit set (IEEE 802 I/G): no single network card has it.`,
        remedies: [clearMac(host)],
      };
    }
  },
};

export const clearMac = (host: Pick<SubnetHost, 'interface' | 'device'>): Remedy => ({
  label: `Clear the MAC of ${host.device.name}`,
  operation: 'edit',
  input: { table: 'interface', id: host.interface.id, set: { mac: null }, seen: { mac: host.interface.mac } },
});

const list = (addresses: readonly IpAddress[]) => addresses.map(formatAddress).join(', ') || 'none';

/** What a host's own settings get wrong, in words; a stop when its gateway is not in the network it believes in. */
function contradictions(
  plan: Plan,
  host: SubnetHost,
  { subnet, gateways }: SubnetView,
): { text: string; stop: boolean }[] {
  const { ownDns } = host.interface;
  const { length, gateway } = ownSettings(host.interface, host.address.address);
  const found: { text: string; stop: boolean }[] = [];
  if (length !== undefined && length !== subnet.prefix.length) {
    const mask = typeof subnet.prefix.address === 'number' ? ` (${maskOf(length)})` : '';
    found.push({ text: `mask /${length}${mask} instead of /${subnet.prefix.length}`, stop: false });
  }
  if (gateway !== undefined && !gateways.some(({ address }) => address.address === gateway)) {
    const sees =
      gateway !== null && contains(networkOf(host.address.address, length ?? subnet.prefix.length), gateway);
    const right = list(gateways.map(({ address }) => address.address));
    found.push({
      // All zeros is how devices show that no gateway is set.
      text:
        gateway === null
          ? `no gateway instead of ${right}: it answers only its own subnet`
          : `gateway ${formatAddress(gateway)} instead of ${right}${sees ? '' : ', which it cannot even reach'}`,
      stop: !sees,
    });
  }
  if (ownDns !== null) {
    const right = dnsOf(plan, subnet);
    if (ownDns.length !== right.length || ownDns.some((server) => !right.includes(server)))
      found.push({ text: `DNS ${list(ownDns)} instead of ${list(right)}`, stop: false });
  }
  return found;
}

const contradicted: SubnetCheck = {
  id: 'own-settings',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, view): Generator<Report> {
    for (const host of view.hosts) {
      const { ownLength, ownGateway, ownDns } = host.interface;
      if (ownLength === null && ownGateway === null && ownDns === null) continue;
      const found = contradictions(plan, host, view);
      if (found.length === 0) continue;
      yield {
        severity: found.some((item) => item.stop) ? 'stop' : 'fix',
        on: on(host),
        also: [{ table: 'interface', id: host.interface.id }],
        what: `${host.device.name} contradicts its subnet`,
        because: `Set on the device: ${found.map((item) => item.text).join('; ')}.`,
        remedies: [subnetSettings(host.interface.id)],
      };
    }
  },
};

const cameraKinds: ReadonlySet<DeviceKind> = new Set(['camera', 'recorder']);

/** Segments whose users should not share the wire with cameras. */
export const mayHoldCameras = (vlan: Vlan): boolean => ['staff', 'guest', 'voice'].includes(vlan.purpose);

const wrongSegment: SubnetCheck = {
  id: 'wrong-segment',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, { hosts, vlan, subnet }) {
    if (!mayHoldCameras(vlan)) return;
    for (const host of hosts) {
      if (!cameraKinds.has(host.device.kind)) continue;
      const cameras = plainVlansOf(plan).find((other) => other.purpose === 'cameras');
      const home = cameras && plan.vlan.get(cameras.id);
      const target = home && subnetOf(plan, home.id, familyOf(subnet.prefix.address));
      yield {
        severity: 'fix',
        on: on(host),
        what: `${host.device.name}, a ${host.device.kind}, sits among ${vlan.name}`,
        because: `Whoever is in ${vlan.name} (${vlan.purpose}) can reach it, and it can reach them; ${home ? `${home.name} is made for it` : 'there is no segment for cameras'}.`,
        remedies: target
          ? [
              {
                label: `Move it to ${home.name}`,
                operation: 'moveToSubnet',
                input: { address: host.address.id, subnet: target.id },
              },
            ]
          : [
              {
                label: 'Add a segment for cameras',
                operation: 'moveToNewSegment',
                input: { address: host.address.id, purpose: 'cameras' },
              },
            ],
      };
    }
  },
};

/** Safety functions must not depend on a network they share: whoever floods it stops them. */
const safetyShared: SubnetCheck = {
  id: 'safety-shared',
  station: 'addresses',
  scope: 'subnet',
  *find(plan, { hosts, vlan }) {
    const safety = safetyDevices(plan);
    if (safety.size === 0) return;
    const inside = hosts.filter((host) => safety.has(host.interface.device));
    const others = hosts.length - inside.length;
    if (others === 0) return;
    for (const host of inside)
      yield {
        severity: 'fix',
        on: on(host),
        what: `${host.device.name} shares ${vlan.name} with ${others} ${others === 1 ? 'device' : 'devices'} that are not safety-related`,
        because: `Whatever floods ${vlan.name} reaches a safety function. Give it a segment of its own, and see that the function does not depend on the network.`,
      };
  },
};

export const hostChecks = [
  safetyShared,
  addressOutside,
  addressOnEdge,
  addressTwice,
  staticInPool,
  reservationInPool,
  reservationWithoutMac,
  nameNotAllowed,
  groupMac,
  contradicted,
  wrongSegment,
];
