import type { IpAddress } from '../../address';
import {
  type Plan,
  type Forward,
  type Tunnel,
  type Uplink,
  addressesOn,
  deriveBy,
  gatewaysOf,
  hostOf,
  portsText,
  subnetsOf,
  vlansOf,
} from '../../plan';
import { letsForwardsIn } from './upstream';
import { protocolsMeet } from './services';
import { forwardsOf, targetOf, uplinksOf } from './view';

/** Several uplinks: when one gives up, and what still works over another. */

/** Seconds until the change, in the worst case. */
export interface Switching {
  /**
   * It breaks right after an answered ping: `lossesDown` further ones are sent, and the last is given up only when the
   * next would be due.
   */
  readonly away: number;
  /** It is back right after a lost ping: the answers of `repliesUp` further ones are waited for. */
  readonly back: number;
  readonly arithmetic: string;
}

export function switchingOf(uplink: Pick<Uplink, 'monitorEvery' | 'lossesDown' | 'repliesUp'>): Switching {
  const { monitorEvery: every, lossesDown, repliesUp } = uplink;
  return {
    away: every * (lossesDown + 1),
    back: every * repliesUp,
    arithmetic: `(${lossesDown} + 1) × ${every} s = ${every * (lossesDown + 1)} s away, ${repliesUp} × ${every} s = ${every * repliesUp} s back`,
  };
}

/** The share of each uplink of a tier by weight, in whole per cent that add up to 100. */
export function sharesOf(uplinks: readonly Pick<Uplink, 'id' | 'weight'>[]): ReadonlyMap<string, number> {
  const total = uplinks.reduce((sum, { weight }) => sum + weight, 0);
  const exact = uplinks.map(({ id, weight }) => ({ id, share: (weight * 100) / total }));
  const left = 100 - exact.reduce((sum, { share }) => sum + Math.floor(share), 0);
  const first = [...exact]
    .sort((a, b) => (b.share % 1) - (a.share % 1) || (a.id < b.id ? -1 : 1))
    .slice(0, left);
  return new Map(
    exact.map(({ id, share }) => [id, Math.floor(share) + (first.some((item) => item.id === id) ? 1 : 0)]),
  );
}

export interface Survival {
  readonly what: string;
  /** One for each uplink, in their order. */
  readonly over: readonly { readonly uplink: string; readonly works: boolean | null; readonly why: string }[];
}

/** The same service of the same card, let in on another uplink. */
const twinOf = (plan: Plan, forward: Forward, uplink: string): Forward | undefined =>
  forwardsOf(plan, uplink).find(
    (other) =>
      other.enabled &&
      other.target === forward.target &&
      other.inside === forward.inside &&
      protocolsMeet(other.protocol, forward.protocol),
  );

/** The device that has an address as a gateway; undefined for none. */
const gatewayAt = (plan: Plan, address: IpAddress): string | undefined =>
  [...plan.subnet.values()]
    .flatMap(({ id }) => gatewaysOf(plan, id))
    .filter((gateway) => gateway.address === address)
    .map((gateway) => hostOf(plan, gateway).device.id)[0];

/** The routers by which a segment gets out: its gateways, and those that they send everything else to. */
const routersOut = deriveBy((plan, vlan: string): ReadonlySet<string> => {
  const found = new Set(
    subnetsOf(plan, vlan).flatMap(({ id }) => gatewaysOf(plan, id).map((at) => hostOf(plan, at).device.id)),
  );
  for (const device of found)
    for (const { device: from, prefix, via } of plan.route.values()) {
      const next = from === device && prefix.length === 0 ? gatewayAt(plan, via) : undefined;
      if (next !== undefined) found.add(next);
    }
  return found;
});

/** Why an uplink is of no use to a segment whose router does not lead to it; null where it does, or nobody recorded one. */
function outOfReach(plan: Plan, vlan: string, uplink: Uplink): string | null {
  const routers = routersOut(plan, vlan);
  if (routers.size === 0 || routers.has(uplink.device)) return null;
  const [first] = [...routers].map((id) => plan.device.get(id)!.name);
  return `it is on ${plan.device.get(uplink.device)!.name}, and ${first!} sends nothing there`;
}

/** The segment in which a card has its first address. */
const segmentOf = (plan: Plan, card: string): string | undefined => {
  const [address] = addressesOn(plan, card);
  return address && plan.subnet.get(address.subnet)!.vlan;
};

/** Does a tunnel come up over an uplink? Who opens it needs nothing let in. */
function tunnelOver(
  tunnel: Tunnel,
  uplink: Uplink,
): { readonly works: boolean | null; readonly why: string } {
  if (tunnel.uplink !== null && tunnel.uplink !== uplink.id)
    return { works: false, why: 'it is bound to another uplink' };
  if (tunnel.device !== uplink.device) return { works: false, why: 'the uplink is on another router' };
  if (!tunnel.initiates) return letsForwardsIn(uplink);
  return uplink.enabled
    ? { works: true, why: 'opened again from here after the change' }
    : { works: false, why: 'the uplink is switched off' };
}

/**
 * For each forward, dynamic name, tunnel and telephone segment: does it work over each of the uplinks? Sessions never outlive
 * the change, because the outside address is another one.
 */
export function survivals(plan: Plan): Survival[] {
  const uplinks = uplinksOf(plan);
  const found: Survival[] = [];
  const seen = new Set<string>();
  for (const uplink of uplinks)
    for (const forward of forwardsOf(plan, uplink.id)) {
      const key = `${forward.target} ${forward.protocol} ${forward.inside}`;
      if (!forward.enabled || seen.has(key)) continue;
      seen.add(key);
      const target = targetOf(plan, forward);
      found.push({
        what: `${portsText(forward.protocol, forward.from, forward.to)} to ${target.name}`,
        over: uplinks.map((other) => {
          const twin = other.id === forward.uplink ? forward : twinOf(plan, forward, other.id);
          if (!twin) return { uplink: other.id, works: false, why: 'no forward is recorded here' };
          const home = segmentOf(plan, forward.target);
          const why = home === undefined ? null : outOfReach(plan, home, other);
          // Its answers go to the gateway of the target, which never saw the question.
          if (why !== null) return { uplink: other.id, works: false, why };
          return { uplink: other.id, ...letsForwardsIn(other) };
        }),
      });
    }
  for (const name of new Set(uplinks.map(({ dynamicName }) => dynamicName).filter(Boolean)))
    found.push({
      what: `the name ${name}`,
      over: uplinks.map((uplink) => {
        const works = uplink.dynamicName === name && uplink.updater !== null;
        return {
          uplink: uplink.id,
          works,
          why: works ? 'follows the address' : 'nobody points it at this address',
        };
      }),
    });
  for (const tunnel of [...plan.tunnel.values()].filter(({ enabled }) => enabled))
    found.push({
      what: `the tunnel ${tunnel.name}`,
      over: uplinks.map((uplink) => ({ uplink: uplink.id, ...tunnelOver(tunnel, uplink) })),
    });
  for (const box of plan.voiceBox.values()) {
    const { name } = plan.device.get(box.device)!;
    found.push({
      what: `telephones at ${name}`,
      over: uplinks.map((uplink) => {
        const own = uplink.id === box.uplink;
        const works = own && uplink.enabled;
        const why = own ? 'its own provider' : 'registers only with its own provider';
        return { uplink: uplink.id, works, why };
      }),
    });
  }
  for (const vlan of vlansOf(plan).filter(({ purpose }) => purpose === 'voice'))
    found.push({
      what: `telephones in ${vlan.name}`,
      over: uplinks.map((uplink) => {
        const apart = outOfReach(plan, vlan.id, uplink);
        return {
          uplink: uplink.id,
          works: uplink.enabled && vlan.internet && apart === null,
          why: !vlan.internet
            ? 'the segment may not reach the Internet'
            : uplink.enabled
              ? (apart ?? 'after they have registered again; calls are lost')
              : 'the uplink is switched off',
        };
      }),
    });
  return found;
}
