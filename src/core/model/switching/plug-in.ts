import { formatAddress, formatPrefix } from '../../address';
import {
  type Plan,
  type Interface,
  type Port,
  type Vlan,
  gatewaysOf,
  hostOf,
  subnetOf,
  boxOf,
} from '../../plan';
import { isMember, ingress, type Flood, flood, stateKey, portsOf } from '../wiring';
import { fabric } from './reach';
import { bridgeAt } from './vlan-members';

/** What somebody finds who plugs a laptop into a port: computed by letting its first broadcast run. */
export interface PlugIn {
  /** The segment the laptop is in; null when its frames go nowhere or into a VLAN that is no segment. */
  readonly vlan: Vlan | null;
  readonly works: boolean;
  /** Does the laptop have an address, by itself or set by hand? */
  readonly addressed: boolean;
  /** One sentence for the screen, without "Plug in here and". */
  readonly sentence: string;
}

const refusedWords = {
  'untagged-refused': 'is not heard: the port takes tagged frames only',
  'no-pvid': 'is not heard: the port puts untagged frames in no VLAN',
  'tagged-refused': 'is not heard: the port refuses tagged frames',
  'not-a-member': 'is not heard: the port is no member of its own PVID',
  blocked: 'is not heard: a spanning tree or a ring blocks the port',
} as const;

/** Is an interface of a device on the floor that a broadcast covers? Null when its ports are not recorded. */
function answers(plan: Plan, covered: Flood, item: Interface, vid: number): boolean | null {
  const { bridges } = fabric(plan);
  const at = bridgeAt(plan, item.device);
  if (at < 0) {
    const ports = portsOf(plan, item.device);
    if (ports.length === 0) return null;
    return covered.heard.some((heard) => heard.tag === 0 && ports.some((port) => port.id === heard.port));
  }
  const bridge = bridges[at]!;
  const inner = bridge.ports.findIndex((port) => port.number === 0);
  const facts = bridge.facts[inner];
  return (
    inner >= 0 && facts != null && isMember(facts, vid) && covered.came.has(stateKey({ bridge: at, vid }))
  );
}

export function plugIn(plan: Plan, port: Port): PlugIn {
  const nothing = (sentence: string): PlugIn => ({
    vlan: null,
    works: false,
    addressed: false,
    sentence,
  });
  const { bridges, seats } = fabric(plan);
  const seat = seats.get(port.id);
  if (!seat) return nothing('there is nothing to plug into: this is the socket of a device');
  if (port.number === 0) return nothing('there is nothing to plug into: this is the inside of the box');
  if (port.defective) return nothing('nothing happens: the port is marked defective');
  if (port.role === 'parked' || !port.enabled) return nothing('nothing happens: the port is parked');
  if (port.role === 'uplink') return nothing('you stand outside: the port faces a provider');
  const bridge = bridges[seat.bridge]!;
  const facts = bridge.facts[seat.port]!;
  const covered = flood(fabric(plan), { port: port.id, tag: 0 });
  let vid: number;
  if (bridge.box.vlanAware) {
    const entered = ingress(facts, 0);
    if ('refused' in entered) return nothing(`your laptop ${refusedWords[entered.refused]}`);
    vid = entered.vid;
  } else {
    // A box without VLANs: the laptop is where the first box that has VLANs puts untagged frames.
    const first = [...covered.came.keys()].find((key) => bridges[Math.floor(key / 4096)]!.box.vlanAware);
    if (first === undefined) return nothing('you reach only what is plugged into this box and its like');
    vid = first % 4096;
  }
  const lan = [...plan.vlan.values()].find((vlan) => vlan.vid === vid);
  if (!lan)
    return nothing(
      `you land in VLAN ${vid}, which is no segment of this site${port.role === 'undecided' ? '; nobody decided this port' : ''}`,
    );
  const subnet = subnetOf(plan, lan.id, 4) ?? subnetOf(plan, lan.id, 6);
  if (!subnet)
    return {
      vlan: lan,
      works: true,
      addressed: false,
      sentence: `you land in ${lan.name}, which has no addresses`,
    };
  const parts = [`you land in ${lan.name}`];
  const pools = [...plan.pool.group(subnet.id).values()];
  const servers = pools.flatMap((pool) =>
    pool.servedBy.map((id) => ({ pool, item: plan.interface.get(id)! })),
  );
  const served = servers.find(({ item }) => answers(plan, covered, item, vid) !== false);
  let works = true;
  let addressed = true;
  if (pools.length === 0)
    parts.push(`set an address of ${formatPrefix(subnet.prefix)} yourself, as nothing is leased here`);
  else if (served) {
    const name = plan.device.get(served.item.device)!.name;
    const known = answers(plan, covered, served.item, vid);
    parts.push(
      `get ${formatAddress(served.pool.start)}–${formatAddress(served.pool.end)} from ${name}${known === null ? ' (if it is reached: its ports are not recorded)' : ''}`,
    );
  } else {
    works = false;
    addressed = false;
    const names = [...new Set(servers.map(({ item }) => plan.device.get(item.device)!.name))];
    parts.push(
      names.length
        ? `get no address, since ${names.join(' and ')} ${names.length === 1 ? 'does' : 'do'} not hear VLAN ${vid} from here`
        : 'get no address, since no server is named for the pool',
    );
  }
  const gateway = gatewaysOf(plan, subnet.id)[0];
  if (!gateway) parts.push('reach only this segment, which has no gateway');
  else {
    const { device, interface: item } = hostOf(plan, gateway);
    const heard = answers(plan, covered, item, vid);
    if (heard === false) works = false;
    parts.push(
      heard === false
        ? `do not reach the gateway ${device.name}`
        : `have ${formatAddress(gateway.address)} on ${device.name} as gateway`,
    );
  }
  return { vlan: lan, works, addressed, sentence: `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}` };
}

/** The port of a box into which an end device is plugged; undefined while it is not. */
export function pluggedInto(plan: Plan, device: string): Port | undefined {
  if (boxOf(plan, device)) return undefined;
  const { links, seats } = fabric(plan);
  for (const port of portsOf(plan, device))
    for (const link of links.get(port.id) ?? []) if (seats.has(link.to)) return plan.port.get(link.to);
  return undefined;
}
