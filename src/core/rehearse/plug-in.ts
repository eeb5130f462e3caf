import { formatAddress, formatPrefix } from '../address';
import { type Plan, type Subnet, type Vlan, gatewaysOf, hostOf, subnetOf, vlansOf } from '../plan';
import { vidsAt } from '../model/switching';
import { discover } from './dhcp';
import { type Entry, landsAt, placeAt } from './entry';
import { type Place, deliver, placeOf } from './frames';

/** What somebody finds who plugs a laptop into a port or joins a wireless network with it. */
export interface PlugIn {
  /** The segment the laptop is in; null when its frames go nowhere or into a VLAN that is no segment. */
  readonly vlan: Vlan | null;
  readonly works: boolean;
  /** The other segments of the port, which whoever tags frames is in as well. */
  readonly byTagging: readonly Vlan[];
  /** One sentence for the screen, without "Plug in here and" or "Join here and". */
  readonly sentence: string;
}

/** What it is leased, and whether that is well. */
function lease(plan: Plan, at: Entry, subnet: Subnet, today: string | null): readonly [string, boolean] {
  if (plan.pool.group(subnet.id).size === 0)
    return [`set an address of ${formatPrefix(subnet.prefix)} yourself, as nothing is leased here`, true];
  const { taken, summary } = discover(plan, { at, mac: null, rogueAt: null }, today);
  if (!taken?.pool) return [`get no address: ${summary.replace(/^No address: /, '')}`, false];
  const { start, end } = taken.pool;
  const by = taken.by === null ? '' : ` by way of ${taken.by}`;
  const unsure = taken.assumed ? ' (if it is reached: its ports are not recorded)' : '';
  return [`get ${formatAddress(start)}–${formatAddress(end)} from ${taken.name}${by}${unsure}`, true];
}

/** What it has for a gateway, frames there and back. */
function gatewayFor(
  plan: Plan,
  entry: Entry,
  { vlan, subnet }: { vlan: Vlan; subnet: Subnet },
): readonly [string, boolean] {
  const [gateway] = gatewaysOf(plan, subnet.id);
  if (!gateway) return ['reach only this segment, which has no gateway', true];
  const { device } = hostOf(plan, gateway);
  const [own, router]: Place[] = [placeAt(plan, entry), placeOf(plan, device.id)];
  const there = deliver(plan, own!, vlan.id, router!, vlan.id);
  if (there.why !== null) return [`do not reach the gateway ${device.name}`, false];
  return deliver(plan, router!, vlan.id, own!, vlan.id).why === null
    ? [`have ${formatAddress(gateway.address)} on ${device.name} as gateway`, true]
    : [`are not answered by the gateway ${device.name}`, false];
}

/** Plugs a laptop into a port, or joins a network with it, and says where it is, what it is leased and whether it has a gateway. */
export function plugIn(plan: Plan, entry: Entry, today: string | null = null): PlugIn {
  const { vlan, why } = landsAt(plan, entry);
  const vids = new Set('port' in entry ? vidsAt(plan, entry.port) : []);
  const byTagging = vlansOf(plan).filter(({ id, vid }) => vids.has(vid) && id !== vlan?.id);
  if (!vlan) return { vlan, works: false, byTagging, sentence: why };
  const subnet = subnetOf(plan, vlan.id, 4) ?? subnetOf(plan, vlan.id, 6);
  const landed = `you land in ${vlan.name}`;
  const apart =
    'port' in entry || !plan.ssid.get(entry.ssid)!.isolated ? '' : '; you do not hear the others on it';
  if (!subnet) return { vlan, works: true, byTagging, sentence: `${landed}, which has no addresses${apart}` };
  const [leased, isLeased] = lease(plan, entry, subnet, today);
  const [left, isThere] = gatewayFor(plan, entry, { vlan, subnet });
  const sentence = `${landed}, ${leased} and ${left}${apart}`;
  return { vlan, works: isLeased && isThere, byTagging, sentence };
}
