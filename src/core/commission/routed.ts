import { type Plan, addressesOn, boxOf, interfacesOf } from '../plan';
import { cellVerdict, zoneOfVlan, zonesOf } from '../model/policy';

/** Boxes that are managed from another segment: by the addresses a router has there, and over it. */

/** What the zones of a plan let pass for whoever sets boxes up, by VLAN ids. Single rules are not looked at. */
export interface Access {
  /** May the page of the router be opened from there? */
  readonly opens: (from: number) => boolean;
  /** Does it let the page of a box in another segment be opened? */
  readonly lets: (from: number, to: number) => boolean;
}

const PAGE = { protocol: 'tcp', port: 443 } as const;

/** Without zones a router asks nobody. What is asked is worked out when it is asked: few pairs ever are. */
export function accessOf(plan: Plan): Access {
  const byVid = new Map([...plan.vlan.values()].map(({ vid, id }) => [vid, zoneOfVlan(plan, id)]));
  const router = zonesOf(plan).find(({ gateway }) => gateway);
  const isFree = zonesOf(plan).length === 0;
  const may = (from: number, to: ReturnType<typeof zoneOfVlan>): boolean => {
    const zone = byVid.get(from);
    return !!zone && !!to && cellVerdict(plan, zone, to, PAGE, null).passes;
  };
  return {
    opens: (from) => isFree || may(from, router),
    lets: (from, to) => isFree || may(from, byVid.get(to)),
  };
}

/** What all of several let pass. */
export const allOf = (all: readonly Access[]): Access => ({
  opens: (from) => all.every(({ opens }) => opens(from)),
  lets: (from, to) => all.every(({ lets }) => lets(from, to)),
});

/** The VLANs in which a router has addresses; none for a box that does not route. */
export function routedVids(plan: Plan, device: string): number[] {
  if (!boxOf(plan, device)?.layer3) return [];
  const vids = interfacesOf(plan, device)
    .flatMap(({ id }) => addressesOn(plan, id))
    .map(({ subnet }) => plan.vlan.get(plan.subnet.get(subnet)!.vlan)!.vid);
  return [...new Set(vids)].sort((a, b) => a - b);
}
