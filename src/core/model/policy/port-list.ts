import { familyOf, parsePrefix } from '../../address';
import { type Plan, type Zone, addressesOn, deriveBy, interfacesOf, subnetsOf } from '../../plan';
import { ruleHolds, plainRulesOf } from './analyse';
import { filterOf, routersFor } from './enforce';
import { forwardsInto } from './openings';
import {
  boxesOfRule,
  insideSpans,
  onLine,
  serviceAt,
  servicesSpans,
  spanOf,
  tunnelSpans,
  vlanSpans,
} from './traffic';
import { type Span, cut } from './traffic-range';
import { isOutside, ownMembers, passing, zoneOfVlan, zonesOf } from './zones';

/**
 * What the rules let a segment begin, as a list for its ports: a box that takes lists from an authentication server holds a
 * device to it where it is plugged in, before any router is asked (RFC 4849). First match counts; what no line names is dropped.
 */
export interface ListLine {
  readonly passes: boolean;
  /** Senders within the segment; null for all of it. */
  readonly from: Span | null;
  /** Receivers; null for anybody. */
  readonly to: Span | null;
  /** Services of the receivers, of the sender where it answers; null for every one. */
  readonly services: readonly Span[] | null;
  /** The line lets answers pass to who may begin from there. A list knows no conversations: routers still decide who begins. */
  readonly answers: boolean;
}

/** What never leaves a segment: broadcasts, and multicast on the link (RFC 919, RFC 5771, RFC 4291). */
const ON_LINK = ['255.255.255.255/32', '224.0.0.0/24', 'fe80::/10', 'ff02::/16'].map((text) =>
  spanOf(parsePrefix(text)!.prefix),
);

const covers = (outer: Span, inner: Span): boolean => outer[0] <= inner[0] && inner[1] <= outer[1];

type Side = Span | null;
const sideMeets = (a: Side, b: Side): boolean => a === null || b === null || cut(a, b) !== null;
const sideCovers = (outer: Side, inner: Side): boolean =>
  outer === null || (inner !== null && covers(outer, inner));
/** Answers come from the ports of a service, not to them: to compare, they may be to any. */
const sidesOf = ({ services, answers }: ListLine): readonly Side[] =>
  answers ? [null] : (services ?? [null]);

const lineMeets = (a: ListLine, b: ListLine): boolean =>
  sideMeets(a.from, b.from) &&
  sideMeets(a.to, b.to) &&
  sidesOf(a).some((one) => sidesOf(b).some((other) => sideMeets(one, other)));
const lineCovers = (outer: ListLine, inner: ListLine): boolean =>
  !outer.answers &&
  sideCovers(outer.from, inner.from) &&
  sideCovers(outer.to, inner.to) &&
  sidesOf(inner).every((one) => sidesOf(outer).some((other) => sideCovers(other, one)));

/** Would the lines after one do the same without it? */
function isNeedless(line: ListLine, after: readonly ListLine[]): boolean {
  for (const other of after) {
    if (!lineMeets(line, other)) continue;
    if (other.passes !== line.passes) return false;
    if (lineCovers(other, line)) return true;
  }
  return !line.passes;
}
/** Boxes hold few lines: those that change nothing are left out. */
function shortened(lines: readonly ListLine[]): ListLine[] {
  const kept: ListLine[] = [];
  lines.forEach((line, i) => {
    const said = lines.slice(0, i).some((earlier) => lineCovers(earlier, line));
    if (!said) kept.push(line);
  });
  return kept.reduceRight<ListLine[]>(
    (after, line) => (isNeedless(line, after) ? after : [line, ...after]),
    [],
  );
}

class Listing {
  readonly lines: ListLine[] = [];
  private readonly own: readonly Span[];

  constructor(
    private readonly plan: Plan,
    private readonly vlan: string,
    private readonly today: string | null,
  ) {
    this.own = vlanSpans(plan, vlan);
  }

  private add(
    passes: boolean,
    to: readonly Span[] | null,
    services: readonly Span[] | null = null,
    from: Span | null = null,
    answers = false,
  ): void {
    for (const receiver of to ?? [null]) this.lines.push({ passes, from, to: receiver, services, answers });
  }

  /** The rules that hold, in their order, for what goes to some addresses. */
  private rules(within: readonly Span[] | null): void {
    const { plan, own, today } = this;
    const router = routersFor(plan, this.vlan)[0]?.id ?? null;
    for (const rule of plainRulesOf(plan)) {
      if (!ruleHolds(rule, today) || (rule.device !== null && rule.device !== router)) continue;
      for (const [senders, receivers, service] of boxesOfRule(plan, rule))
        for (const part of own) {
          const from = cut(senders, part);
          const to = within
            ? within.map((span) => cut(receivers, span)).filter((span) => span !== null)
            : [receivers];
          if (from) this.add(rule.action === 'allow', to, [service], covers(senders, part) ? null : from);
        }
    }
  }

  /** What a pair of zones lets pass to some addresses. */
  private cell(to: Zone, spans: readonly Span[] | null): void {
    const { plan } = this;
    const { decision, services } = passing(plan, zoneOfVlan(plan, this.vlan)!, to);
    const wish = decision === 'wish' && plan.vlan.get(this.vlan)!.internet;
    if (decision === 'allow' || wish) this.add(true, spans);
    if (decision === 'services') this.add(true, spans, servicesSpans(plan, services));
  }

  /** The other segments of a zone, and what is behind its tunnels. */
  private behind(zone: Zone): Span[] {
    const { plan } = this;
    const { vlans, tunnels } = ownMembers(plan, zone);
    const others = vlans.filter((id) => id !== this.vlan);
    return [...others.flatMap((id) => vlanSpans(plan, id)), ...tunnelSpans(plan, tunnels)];
  }

  /** What may be answered: whoever may begin with the segment. */
  private answers(): void {
    const { plan, own, today } = this;
    const zone = zoneOfVlan(plan, this.vlan);
    for (const rule of plainRulesOf(plan)) {
      if (!ruleHolds(rule, today) || rule.action !== 'allow') continue;
      for (const [senders, receivers, service] of boxesOfRule(plan, rule))
        for (const part of own) {
          const from = cut(receivers, part);
          if (from) this.add(true, [senders], [service], covers(receivers, part) ? null : from, true);
        }
    }
    if (!zone) return;
    for (const other of zonesOf(plan)) {
      const { decision, services } = passing(plan, other, zone);
      if (decision === 'deny') continue;
      const named = decision === 'services' ? servicesSpans(plan, services) : null;
      this.add(true, this.behind(other), named, null, true);
    }
    for (const other of zonesOf(plan))
      for (const { target, protocol, inside, from, to } of forwardsInto(plan, other, zone))
        for (const { address, subnet } of addressesOn(plan, target)) {
          if (plan.subnet.get(subnet)!.vlan !== this.vlan) continue;
          const at = onLine(address);
          const protocols = protocol === 'both' ? (['tcp', 'udp'] as const) : [protocol];
          const services = protocols.map((name): Span => [
            serviceAt(name, inside),
            serviceAt(name, inside + to - from),
          ]);
          this.add(true, null, services, [at, at], true);
        }
  }

  made(): readonly ListLine[] {
    const { plan, own, vlan } = this;
    const router = routersFor(plan, vlan)[0];
    const six = subnetsOf(plan, vlan).some(({ prefix }) => familyOf(prefix.address) === 6);
    this.add(true, six ? ON_LINK : ON_LINK.slice(0, 2));
    const zone = zoneOfVlan(plan, vlan);
    // Where nobody decides anything, everything passes.
    const filter = router ? filterOf(plan, router) : 'none';
    if (!router || filter === 'none' || zonesOf(plan).length === 0) {
      if (filter !== 'none') this.rules(null);
      this.add(true, null);
      return this.lines;
    }
    const gateways = interfacesOf(plan, router.id).flatMap(({ id }) =>
      addressesOn(plan, id).map(({ address }): Span => [onLine(address), onLine(address)]),
    );
    this.rules(gateways);
    const gateway = zonesOf(plan).find((other) => other.gateway);
    if (zone && gateway) this.cell(gateway, gateways);
    this.add(false, gateways);
    this.add(true, own);
    this.rules(null);
    this.answers();
    if (zone) for (const other of zonesOf(plan)) this.cell(other, this.behind(other));
    const outside = zonesOf(plan).find(isOutside);
    this.add(false, [
      ...insideSpans(plan),
      ...tunnelSpans(
        plan,
        [...plan.tunnel.values()].map(({ id }) => id),
      ),
    ]);
    if (zone && outside) this.cell(outside, null);
    return this.lines;
  }
}

const listBy = deriveBy((plan, key: string): readonly ListLine[] => {
  const [vlan, today] = key.split(' ') as [string, string];
  return shortened(new Listing(plan, vlan, today || null).made());
});
/** The list of a segment on a day. */
export const portListOf = (plan: Plan, vlan: string, today: string | null): readonly ListLine[] =>
  listBy(plan, `${vlan} ${today ?? ''}`);
