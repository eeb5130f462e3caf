import { type Plan, type Uplink, interfacesOf } from '../plan';
import { interfaceName } from './nft-match';

/** What a Linux box calls its interfaces: as recorded, else by the number of the VLAN or of the uplink. */

export function legName(plan: Plan, device: string, vlan: string): string {
  const item = interfacesOf(plan, device).find((candidate) => candidate.vlan === vlan);
  return interfaceName(item?.name ?? '', `vlan${plan.vlan.get(vlan)!.vid}`);
}

/** The uplinks of a box count from 0. */
export const uplinkName = (plan: Plan, uplink: Uplink, at: number): string =>
  interfaceName(plan.port.get(uplink.port ?? '')?.name ?? '', `wan${at}`);
