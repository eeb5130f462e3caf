import {
  type IpAddress,
  type Prefix,
  contains,
  covers,
  overlaps,
  prefixFamily,
  samePlace,
  samePrefix,
  widthOf,
} from '../../address';
import { type Draft, type Party, type Plan, equal } from '../../plan';
import { type Renumbering, renumbered } from './renumber';

/**
 * What names addresses and networks literally goes along with subnets that were moved: rules, routes, DNS servers and questions.
 * Else a rule that keeps a network out would let it in where it stands now. `before` is the plan as it was: with many subnets
 * moved at once, one may stand where another stood. What is really set on devices stays, as a fact.
 */
export function takeLiteralsAlong(draft: Draft, before: Plan, moves: readonly Renumbering[]): void {
  const address = (old: IpAddress): IpAddress => {
    const known = moves.find(({ went }) => went.has(old))?.went.get(old);
    const home = moves.find(({ from }) => contains(from, old));
    return known ?? (home && renumbered(home.from, home.to, old)) ?? old;
  };
  const network = (old: Prefix): Prefix => {
    const { length } = old;
    if (length === widthOf(prefixFamily(old))) return { address: address(old.address), length };
    const home = moves.find(({ from }) => covers(from, old));
    if (!home) return old;
    if (samePrefix(home.from, old)) return home.to;
    const place = { address: samePlace(home.from, home.to, old.address), length };
    return overlaps(home.from, home.to) || !covers(home.to, place) ? old : place;
  };
  const parties = (list: readonly Party[]): Party[] =>
    list.map((party) => ('prefix' in party ? { prefix: network(party.prefix) } : party));

  for (const { id, from, to } of before.rule.values()) {
    const now = { from: parties(from), to: parties(to) };
    if (!equal(now, { from, to })) draft.update('rule', id, now);
  }
  for (const { id, prefix, via } of before.route.values()) {
    const now = { prefix: network(prefix), via: address(via) };
    if (!equal(now, { prefix, via })) draft.update('route', id, now);
  }
  for (const { id, dns } of before.subnet.values()) {
    const now = dns.map((server) => ('literal' in server ? { literal: address(server.literal) } : server));
    if (!equal(now, dns)) draft.update('subnet', id, { dns: now });
  }
  for (const { id, toAddress } of before.question.values())
    if (toAddress !== null && address(toAddress) !== toAddress)
      draft.update('question', id, { toAddress: address(toAddress) });
}
