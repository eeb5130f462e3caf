import { type IpAddress, type Prefix, lastOf } from '../../address';
import {
  derive,
  deriveBy,
  memo,
  type Plan,
  type Party,
  type Rule,
  type Service,
  addressesOn,
  interfacesOf,
  subnetsOf,
} from '../../plan';
import { type TrafficRange, type Span, gaps } from './traffic-range';
import { serviceOf } from './services';

/** What the parties and services of a rule are on the lines of addresses and services. */

const V4_LAST = 2n ** 32n - 1n;
export const V6_FIRST = 2n ** 32n;
const LINE_4: Span = [0n, V4_LAST];
const LINE_6: Span = [V6_FIRST, V6_FIRST + 2n ** 128n - 1n];

/** All addresses of each family. */
export const LINES = [LINE_4, LINE_6] as const;

/** IPv4 addresses first, then IPv6, on one line. */
export const onLine = (address: IpAddress): bigint =>
  typeof address === 'number' ? BigInt(address) : V6_FIRST + address;
export const spanOf = (prefix: Prefix): Span => [onLine(prefix.address), onLine(lastOf(prefix))];

/** Everything inside this site: its subnets. */
export const insideSpans = derive((plan): readonly Span[] =>
  [...plan.subnet.values()].map(({ prefix }) => spanOf(prefix)),
);
/** The networks at the other end of a tunnel. */
export const tunnelSpans = (plan: Plan, ids: readonly string[]): Span[] =>
  ids.flatMap((id) => (plan.tunnel.get(id)?.remote ?? []).map(spanOf));
/** Everything that is not inside: the Internet, and whatever lies on the way there. */
const outsideSpans = derive((plan): readonly Span[] =>
  LINES.flatMap((line) =>
    gaps(line, [
      ...insideSpans(plan),
      ...tunnelSpans(
        plan,
        [...plan.tunnel.values()].map(({ id }) => id),
      ),
    ]),
  ),
);
/** The addresses of the gateways, in every segment. */
const gatewaySpans = derive((plan): readonly Span[] =>
  [...plan.address.values()]
    .filter(({ gateway }) => gateway)
    .map(({ address }) => [onLine(address), onLine(address)]),
);

export const vlanSpans = (plan: Plan, vlan: string): Span[] =>
  subnetsOf(plan, vlan).map(({ prefix }) => spanOf(prefix));

/** The addresses of a zone; its segments, the outside when it has uplinks, the gateways when it is theirs. */
export const spansOfZone = deriveBy((plan, id: string): readonly Span[] => {
  const zone = plan.zone.get(id);
  if (!zone) return [];
  return [
    ...zone.vlans.flatMap((vlan) => vlanSpans(plan, vlan)),
    ...tunnelSpans(plan, zone.tunnels),
    ...(zone.uplinks.length > 0 ? outsideSpans(plan) : []),
    ...(zone.gateway ? gatewaySpans(plan) : []),
  ];
});

function partySpans(plan: Plan, party: Party): Span[] {
  if ('prefix' in party) return [spanOf(party.prefix)];
  if ('vlan' in party) return vlanSpans(plan, party.vlan);
  if ('device' in party) {
    const spans: Span[] = [];
    for (const { id } of interfacesOf(plan, party.device))
      for (const { address } of addressesOn(plan, id)) {
        const at = onLine(address);
        spans.push([at, at]);
      }
    return spans;
  }
  return [...spansOfZone(plan, party.zone)];
}

/** An empty list means anybody; a party that is nobody any more adds nobody. */
export const spansOf = (plan: Plan, parties: readonly Party[]): Span[] =>
  parties.length === 0 ? [LINE_4, LINE_6] : parties.flatMap((party) => partySpans(plan, party));

export const PROTOCOLS = ['tcp', 'udp', 'icmp', 'ip'] as const;
export const PORTS = 65_536;
/** Every service there is. */
export const EVERYTHING: Span = [0n, BigInt(PROTOCOLS.length * PORTS - 1)];

/** A port, type or protocol number on the line of services. */
export const serviceAt = (protocol: (typeof PROTOCOLS)[number], number: number): bigint =>
  BigInt(PROTOCOLS.indexOf(protocol) * PORTS + number);

const serviceSpans = memo((service: Service): readonly Span[] =>
  service.matches.map(({ protocol, from, to }) => [serviceAt(protocol, from), serviceAt(protocol, to)]),
);

export const servicesSpans = (plan: Plan, ids: readonly string[]): Span[] =>
  ids.flatMap((id) => {
    const service = serviceOf(plan, id);
    return service ? serviceSpans(service) : [];
  });

const sameFamily = (a: Span, b: Span): boolean => a[0] <= V4_LAST === b[0] <= V4_LAST;

/** What a recorded rule speaks of. */
export const boxesOfRule = (plan: Plan, { id }: Pick<Rule, 'id'>): readonly TrafficRange[] =>
  boxesBy(plan, id);
const boxesBy = deriveBy((plan, id: string): readonly TrafficRange[] => boxesOf(plan, plan.rule.get(id)!));

/** What a rule speaks of. Nobody sends from one address family to the other. */
export function boxesOf(plan: Plan, rule: Pick<Rule, 'from' | 'to' | 'services'>): TrafficRange[] {
  const services = rule.services.length === 0 ? [EVERYTHING] : servicesSpans(plan, rule.services);
  const receivers = spansOf(plan, rule.to);
  const boxes: TrafficRange[] = [];
  for (const from of spansOf(plan, rule.from))
    for (const to of receivers)
      if (sameFamily(from, to)) for (const service of services) boxes.push([from, to, service]);
  return boxes;
}
