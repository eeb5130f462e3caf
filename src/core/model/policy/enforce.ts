import { boxOf, deriveBy, type Plan, type Device, type Zone, interfacesOf, routersOf } from '../../plan';

/** Who stands between two zones: the boxes that route between their segments, and what their filters can do. */

export type Filter = 'none' | 'stateless' | 'stateful';

export interface Enforcement {
  /** The boxes on the way; empty when nobody routes between the two, so that nothing passes at all. */
  readonly boxes: readonly Device[];
  /** The best filter on the way; null when nobody routes. */
  readonly filter: Filter | null;
}

/** The devices that route for a VLAN. */
export const routersFor = (plan: Plan, vlan: string): Device[] =>
  routersOf(plan).filter((device) => interfacesOf(plan, device.id).some((item) => item.vlan === vlan));

/** What the filter of a device can do: as its box says; of a gateway whose box nobody recorded, all of it. */
export function filterOf(plan: Plan, device: Device): Filter {
  const box = boxOf(plan, device.id);
  if (box) return box.layer3 ? box.filter : 'none';
  return device.kind === 'gateway' ? 'stateful' : 'none';
}

const order: readonly Filter[] = ['none', 'stateless', 'stateful'];
const best = (filters: readonly Filter[]): Filter =>
  filters.reduce<Filter>((a, b) => (order.indexOf(b) > order.indexOf(a) ? b : a), 'none');

/** For each segment of a zone, and for what is behind the gateway, who routes for it. */
const routersOfZone = deriveBy((plan, id: string): readonly (readonly Device[])[] => {
  const zone = plan.zone.get(id);
  if (!zone) return [];
  const outside = zone.uplinks.length > 0 || zone.tunnels.length > 0 || zone.gateway;
  return [
    ...zone.vlans.map((vlan) => routersFor(plan, vlan)),
    // The outside and the gateway itself are behind the gateway.
    ...(outside ? [routersOf(plan).filter(({ kind }) => kind === 'gateway')] : []),
  ];
});

/** The boxes that a packet from one zone to the other passes, by its weakest pair of segments. */
export function enforcement(plan: Plan, from: Pick<Zone, 'id'>, to: Pick<Zone, 'id'>): Enforcement {
  const receivers = routersOfZone(plan, to.id);
  let weakest: Enforcement | null = null;
  for (const a of routersOfZone(plan, from.id))
    for (const b of receivers) {
      if (a.length === 0 || b.length === 0) continue;
      // Where one box routes both, it alone is on the way; it may be any of several.
      const common = a.filter((device) => b.includes(device));
      const boxes = common.length > 0 ? common : [...new Set([...a, ...b])];
      const filters = boxes.map((device) => filterOf(plan, device));
      const filter =
        common.length > 0 ? order[Math.min(...filters.map((item) => order.indexOf(item)))]! : best(filters);
      if (!weakest || order.indexOf(filter) < order.indexOf(weakest.filter!)) weakest = { boxes, filter };
    }
  return weakest ?? { boxes: [], filter: null };
}
