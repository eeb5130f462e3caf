import { formatAddress } from '../address';
import { fabric } from '../model/switching';
import { type Plan, type Vlan, addressesOf, hostOf, subnetsOf } from '../plan';
import type { Host } from '../rehearse';
import { everything, hasSocket, nodad, wireOf } from './boxes';
import type { Site } from './site';
import { tagsOf } from './wires';

/** Whoever is in a segment without a cable that is recorded: on the air, in a socket, or somewhere. */

type Guest = Pick<Host, 'place' | 'vlan' | 'address' | 'length' | 'gateway'>;

/** The box a guest is at: where it was said, else at the gateway of its segment, else anywhere in it. */
export function boxOfGuest(
  plan: Plan,
  { place }: Pick<Guest, 'place'>,
  vlan: Vlan,
): { device: string; wire: string } | null {
  const { bridges } = fabric(plan);
  const gateways = subnetsOf(plan, vlan.id).flatMap(({ id }) =>
    addressesOf(plan, id).filter(({ gateway }) => gateway),
  );
  const wanted =
    place.kind === 'plug'
      ? [place.port.device]
      : place.kind === 'air'
        ? [place.device]
        : [...gateways.map((one) => hostOf(plan, one).device.id), ...bridges.map(({ device }) => device)];
  for (const device of wanted) {
    const bridge = bridges.find((one) => one.device === device);
    const vid = bridge?.box.vlanAware ? vlan.vid : 0;
    // What is in it by its inside alone has no socket to plug a guest into.
    if (bridge && tagsOf(plan).includes(vid) && hasSocket(bridge, vid))
      return { device, wire: wireOf(bridge, vid) };
  }
  return null;
}

/** Puts a guest into a namespace and joins it to its segment. False where nothing there takes a plug. */
export function layGuest(site: Site, plan: Plan, id: string, guest: Guest): boolean {
  const vlan = plan.vlan.get(guest.vlan)!;
  const at = boxOfGuest(plan, guest, vlan);
  if (!at) return false;
  if (!site.has(id)) site.add(id, false);
  const end = `guest${site.cables.length}`;
  site.cable(id, 'guest', at.device, end);
  site.link(at.device, `link set ${end} master ${at.wire}`);
  site.link(id, `addr add ${formatAddress(guest.address)}/${guest.length} dev guest${nodad(guest.address)}`);
  if (guest.gateway !== null)
    site.route(id, `route add ${everything(guest.address)} via ${formatAddress(guest.gateway)}`);
  return true;
}
