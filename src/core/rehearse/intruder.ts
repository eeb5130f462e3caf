import { boxOf, type Plan, type Vlan, type Zone, vlansOf } from '../plan';
import { passing, zoneOfVlan, zonesOf, serviceNames } from '../model/policy';
import { bridgeAt, fabric, vidsAt } from '../model/switching';
import { accessPointOf } from '../model/wireless';
import { classesOf } from './classes';

/** What somebody reaches who has taken over a box or a device: they keep to nothing that is set on it. */
export interface IntruderReach {
  /** Segments whose frames they send and read, with those who are there. */
  readonly inside: readonly { readonly vlan: Vlan; readonly devices: number }[];
  /** Zones they get to by way of the routers, and what the policy lets pass. */
  readonly beyond: readonly { readonly zone: Zone; readonly from: Zone; readonly what: string }[];
}

/** The VLANs that the neighbours of a box take from it or send to it, whatever is set on the box itself. */
function takenByNeighbours(plan: Plan, device: string): Set<number> {
  const { bridges, links, seats } = fabric(plan);
  const vids = new Set<number>();
  const seen = new Set([device]);
  const pending = [device];
  for (const at of pending)
    for (const port of plan.port.group(at).values())
      for (const link of links.get(port.id) ?? []) {
        const seat = seats.get(link.to);
        const far = seat && bridges[seat.bridge]!;
        if (!seat || !far || seen.has(far.device)) continue;
        if (!far.box.vlanAware) {
          // It passes on what it is given, so its neighbours are those of the intruder.
          seen.add(far.device);
          pending.push(far.device);
          continue;
        }
        for (const vid of vidsAt(plan, link.to)) vids.add(vid);
      }
  // Who is on the air without a cable has the key of the network it joined.
  const joined = accessPointOf(plan, device);
  const { vlan } = (joined && plan.ssid.get(joined.ssid)) ?? { vlan: null };
  if (vlan !== null) vids.add(plan.vlan.get(vlan)!.vid);
  // Who is plugged into the box itself is at its mercy.
  for (const port of bridges[bridgeAt(plan, device)]?.ports ?? [])
    if (port.number > 0 && (links.get(port.id)?.length ?? 0) > 0)
      for (const id of [port.untagged, port.voice]) if (id !== null) vids.add(plan.vlan.get(id)!.vid);
  return vids;
}

export function intruderReach(plan: Plan, device: string): IntruderReach {
  const vids = takenByNeighbours(plan, device);
  const there = new Map<string, Set<string>>();
  for (const { vlan, devices } of classesOf(plan)) {
    const known = there.get(vlan) ?? new Set<string>();
    there.set(vlan, known);
    for (const id of devices) if (id !== device) known.add(id);
  }
  const inside = vlansOf(plan)
    .filter(({ vid }) => vids.has(vid))
    .map((vlan) => ({ vlan, devices: there.get(vlan.id)?.size ?? 0 }));
  const own = new Set(inside.flatMap(({ vlan }) => zoneOfVlan(plan, vlan.id) ?? []));
  // A router that is taken over asks nobody.
  const routes = boxOf(plan, device)?.layer3 ?? false;
  const beyond: IntruderReach['beyond'][number][] = [];
  for (const zone of zonesOf(plan)) {
    if (own.has(zone)) continue;
    for (const from of own) {
      const { decision, services } = passing(plan, from, zone);
      if (decision === 'deny' && !routes) continue;
      const what =
        routes || decision === 'allow'
          ? 'everything'
          : decision === 'wish'
            ? 'as its segments wish'
            : serviceNames(plan, services);
      beyond.push({ zone, from, what });
      break;
    }
  }
  return { inside, beyond };
}
