import { familyOf } from '../../address';
import { type Plan, type VlanGuard, deriveBy, despite, equal, gatewaysOf, subnetsOf } from '../../plan';
import { segmentsOf } from '../../model/hosts';
import { guardsOf } from '../../model/guards';
import { beginsAlike, bridgeAt, fabric, untouched, vidsOf } from '../../model/switching';
import {
  type Fabric,
  type Origin,
  enters,
  fabricOf,
  flood,
  leaves,
  linksAt,
  portsOf,
  wiredFabric,
} from '../../model/wiring';
import { type Place, originOf, placeOf } from '../frames';
import { leasersIn } from './sights';

/** Which ports have to be trusted: those at which who is meant to speak may come in, whatever trees block. */

/** The fabric as if a box were not there. */
function without({ bridges, ...rest }: Fabric, at: number): Fabric {
  const shut = { ...bridges[at]!, facts: bridges[at]!.facts.map(() => null) };
  return { ...rest, bridges: bridges.map((bridge, i) => (i === at ? shut : bridge)) };
}

/**
 * The ports of a box at which frames of somebody in a segment come in, by every way that does not pass the box before. With the
 * fabric as it is wired that is any way a tree may take.
 */
function arrivalsAt(
  plan: Plan,
  wired: Fabric,
  device: string,
  place: Place,
  vlan: string,
  read: Read,
): string[] {
  const at = bridgeAt(plan, device);
  const { origin } = originOf(plan, place, vlan);
  if (at < 0 || !origin) return [];
  const bridge = wired.bridges[at]!;
  read.origins.push(origin);
  if ('port' in origin) {
    const seat = wired.seats.get(origin.port);
    if (seat?.bridge === at) return [origin.port];
  } else if (origin.state.bridge === at) return [];
  const covered = flood(without(wired, at), origin, 'boxes');
  for (const vid of vidsOf(covered.came)) read.vids.add(vid);
  const vidsAt = new Map<number, number[]>();
  for (const key of covered.came.keys()) {
    const far = Math.floor(key / 4096);
    vidsAt.set(far, [...(vidsAt.get(far) ?? []), key % 4096]);
  }
  return bridge.ports.flatMap(({ id, number }, i) => {
    if (number === 0) return [];
    const arrives = (wired.links.get(id) ?? []).some(({ to }) => {
      const seat = wired.seats.get(to);
      if (!seat) return false;
      return (vidsAt.get(seat.bridge) ?? []).some((vid) => {
        const tag = leaves(wired.bridges[seat.bridge]!, seat.port, vid);
        const entered = tag === null ? null : enters(bridge, i, tag);
        return entered !== null && 'vid' in entered;
      });
    });
    return arrives ? [id] : [];
  });
}

/** The ports of a box that have to be trusted with what it guards, by kind of trust. */
export interface WantedTrust {
  readonly dhcp: ReadonlySet<string>;
  readonly arp: ReadonlySet<string>;
  readonly routers: ReadonlySet<string>;
}

/** Who has to be believed in a segment a box guards, and with which trust. */
function believed(
  plan: Plan,
  { vlan, snooping, sourceGuard, sourceGuard6, raGuard, dhcp6Guard }: VlanGuard,
): { readonly device: string; readonly as: 'dhcp' | 'routers' }[] {
  const cards: { readonly card: string; readonly as: 'dhcp' | 'routers' }[] = [];
  const add = (ids: readonly string[], as: 'dhcp' | 'routers') =>
    cards.push(...ids.map((card) => ({ card, as })));
  if (snooping || sourceGuard)
    add(
      leasersIn(plan, vlan).map(({ item }) => item.id),
      'dhcp',
    );
  for (const { id, prefix, advertised } of subnetsOf(plan, vlan)) {
    const gateways = gatewaysOf(plan, id).map(({ interface: card }) => card);
    if (familyOf(prefix.address) === 4) {
      // Packets of the whole world come from the gateway.
      if (sourceGuard) add(gateways, 'dhcp');
      continue;
    }
    if (sourceGuard6) add(gateways, 'dhcp');
    if (raGuard && advertised) add(gateways, 'routers');
    const servers = [...plan.pool.group(id).values()].flatMap(({ servedBy }) => servedBy);
    if (dhcp6Guard || sourceGuard6)
      add(
        servers.filter((card) => segmentsOf(plan, plan.interface.get(card)!).includes(vlan)),
        'dhcp',
      );
  }
  return cards.map(({ card, as }) => ({ device: plan.interface.get(card)!.device, as }));
}

/** What of a fabric was looked at: where frames began, and the VLANs they came through. */
interface Read {
  readonly origins: Origin[];
  readonly vids: Set<number>;
}
interface Trusting extends Read {
  readonly wanted: WantedTrust;
}

function trustBy(plan: Plan, device: string, wired: Fabric, segments: readonly string[] | null): Trusting {
  const read: Read = { origins: [], vids: new Set() };
  const wanted = { dhcp: new Set<string>(), arp: new Set<string>(), routers: new Set<string>() };
  for (const guard of guardsOf(plan, device).values()) {
    if (segments && !segments.includes(guard.vlan)) continue;
    read.vids.add(plan.vlan.get(guard.vlan)!.vid);
    for (const { device: speaker, as } of believed(plan, guard))
      for (const port of arrivalsAt(plan, wired, device, placeOf(plan, speaker), guard.vlan, read))
        wanted[as].add(port);
    if (guard.inspection) for (const port of inspectedBeyond(plan, device, guard.vlan)) wanted.arp.add(port);
  }
  return { wanted, ...read };
}

/** Trust is the same as long as nothing changes where frames began and in the VLANs they came through. */
const trusting = (wired: (plan: Plan) => Fabric) =>
  deriveBy(
    (plan, device: string) => trustBy(plan, device, wired(plan), null),
    equal,
    despite(
      wired,
      ({ origins, vids }: Trusting, was, is) =>
        untouched(vids, was, is) && origins.every((origin) => beginsAlike(origin, was, is)),
    ),
  );
const byAnyTree = trusting(wiredFabric);
const byTreesNow = trusting(fabric);

/**
 * The trust a box needs: for DHCP towards every server and relay of what it watches, for ARP towards boxes that inspect the
 * same segment themselves, for routers towards those who announce; by whatever way a tree may take.
 */
export const wantedTrust = (
  plan: Plan,
  device: string,
  segments: readonly string[] | null = null,
): WantedTrust =>
  (segments ? trustBy(plan, device, fabricOf(plan), segments) : byAnyTree(plan, device)).wanted;
/** The part of it that is needed as trees stand now. */
export const neededNow = (plan: Plan, device: string): WantedTrust => byTreesNow(plan, device).wanted;

/** What is at the other end of each port of a box. */
const beyond = deriveBy((plan, device: string): readonly { readonly port: string; readonly far: string }[] =>
  portsOf(plan, device).flatMap((port) =>
    port.number === 0
      ? []
      : linksAt(plan, port).map(({ to }) => ({ port: port.id, far: plan.port.get(to)!.device })),
  ),
);

/** Ports of a box whose cable ends at a box that inspects the same segment: what comes from there was looked at. */
function inspectedBeyond(plan: Plan, device: string, vlan: string): string[] {
  const { vid } = plan.vlan.get(vlan)!;
  const inspecting = beyond(plan, device).filter(
    ({ far }) => plan.vlanGuard.group(far).size > 0 && guardsOf(plan, far).get(vid)?.inspection,
  );
  return inspecting.map(({ port }) => port);
}
