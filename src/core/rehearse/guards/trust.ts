import { familyOf } from '../../address';
import { type Plan, type VlanGuard, deriveBy, gatewaysOf, subnetsOf } from '../../plan';
import { segmentsOf } from '../../model/hosts';
import { guardsOf } from '../../model/guards';
import { bridgeAt, fabric } from '../../model/switching';
import { type Fabric, enters, fabricOf, flood, leaves } from '../../model/wiring';
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
function arrivalsAt(plan: Plan, wired: Fabric, device: string, place: Place, vlan: string): string[] {
  const at = bridgeAt(plan, device);
  const { origin } = originOf(plan, place, vlan);
  if (at < 0 || !origin) return [];
  const bridge = wired.bridges[at]!;
  if ('port' in origin) {
    const seat = wired.seats.get(origin.port);
    if (seat?.bridge === at) return [origin.port];
  } else if (origin.state.bridge === at) return [];
  const covered = flood(without(wired, at), origin, 'boxes');
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

const NONE: WantedTrust = { dhcp: new Set(), arp: new Set(), routers: new Set() };

/** Who has to be believed in a segment a box guards, and with which trust. */
function believed(
  plan: Plan,
  { vlan, snooping, sourceGuard, raGuard, dhcp6Guard }: VlanGuard,
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
    if (raGuard && advertised) add(gateways, 'routers');
    const servers = [...plan.pool.group(id).values()].flatMap(({ servedBy }) => servedBy);
    if (dhcp6Guard)
      add(
        servers.filter((card) => segmentsOf(plan, plan.interface.get(card)!).includes(vlan)),
        'dhcp',
      );
  }
  return cards.map(({ card, as }) => ({ device: plan.interface.get(card)!.device, as }));
}

function trustBy(plan: Plan, device: string, wired: Fabric, segments: readonly string[] | null): WantedTrust {
  const guards = guardsOf(plan, device);
  if (guards.size === 0) return NONE;
  const wanted = { dhcp: new Set<string>(), arp: new Set<string>(), routers: new Set<string>() };
  for (const guard of guards.values()) {
    if (segments && !segments.includes(guard.vlan)) continue;
    for (const { device: speaker, as } of believed(plan, guard))
      for (const port of arrivalsAt(plan, wired, device, placeOf(plan, speaker), guard.vlan))
        wanted[as].add(port);
    if (guard.inspection) for (const port of inspectedBeyond(plan, device, guard.vlan)) wanted.arp.add(port);
  }
  return wanted;
}

/**
 * The trust a box needs: for DHCP towards every server and relay of what it watches, for ARP towards boxes that inspect the
 * same segment themselves, for routers towards those who announce; by whatever way a tree may take.
 */
export const wantedTrust = (
  plan: Plan,
  device: string,
  segments: readonly string[] | null = null,
): WantedTrust => (segments ? trustBy(plan, device, fabricOf(plan), segments) : wantedOf(plan, device));
const wantedOf = deriveBy((plan, device: string): WantedTrust => trustBy(plan, device, fabricOf(plan), null));
/** The part of it that is needed as trees stand now. */
export const neededNow = deriveBy((plan, device: string): WantedTrust =>
  trustBy(plan, device, fabric(plan), null),
);

/** Ports of a box whose cable ends at a box that inspects the same segment: what comes from there was looked at. */
function inspectedBeyond(plan: Plan, device: string, vlan: string): string[] {
  const { bridges, seats, links } = fabricOf(plan);
  const { vid } = plan.vlan.get(vlan)!;
  const bridge = bridges[bridgeAt(plan, device)];
  if (!bridge) return [];
  return bridge.ports.flatMap(({ id, number }) => {
    const far = (links.get(id) ?? []).flatMap(({ to }) => {
      const seat = seats.get(to);
      return seat ? [bridges[seat.bridge]!.device] : [];
    });
    const inspects = far.some((other) => guardsOf(plan, other).get(vid)?.inspection);
    return number > 0 && inspects ? [id] : [];
  });
}
