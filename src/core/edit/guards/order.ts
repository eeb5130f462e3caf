import type * as z from 'zod';
import { Draft, type Plan, type Port, equal } from '../../plan';
import { type VlanGuards, noVlanGuards, trustOf, vlanGuardOf } from '../../model/guards';
import { portsTitle } from '../../model/wiring';
import { setVlanGuards, switchOnGuards } from './segments';

/** In which order guards are switched on, so that nobody is cut off on the way. */

export interface OrderStep {
  readonly what: string;
  readonly why: string;
}

const names = (plan: Plan, table: 'device' | 'vlan', ids: Iterable<string>): string =>
  [...new Set(ids)].map((id) => plan[table].get(id)!.name).join(', ');

/** The guards that are on afterwards and were not before, by kind. */
function newly(before: Plan, after: Plan, guard: keyof VlanGuards) {
  return [...after.vlanGuard.values()].filter(
    ({ device, vlan, ...now }) => now[guard] && !(vlanGuardOf(before, device, vlan) ?? noVlanGuards)[guard],
  );
}

/** The longest lease of segments, in seconds. */
const longestLease = (plan: Plan, vlans: readonly string[]): number =>
  Math.max(
    0,
    ...[...plan.pool.values()]
      .filter(({ subnet }) => vlans.includes(plan.subnet.get(subnet)!.vlan))
      .map(({ lease }) => lease),
  );

const hours = (seconds: number): string =>
  seconds >= 7200 ? `${Math.ceil(seconds / 3600)} hours` : `${Math.ceil(seconds / 60)} minutes`;

/**
 * The steps from one plan to the other, as far as guards differ: trust and bindings first, then what watches, then what checks
 * against what was watched. A client asks again after half its lease (RFC 2131 section 4.4.5); until then nothing is known of it.
 */
export function switchOnOrder(before: Plan, after: Plan): OrderStep[] {
  const steps: OrderStep[] = [];
  const trusted = [...after.portGuard.values()].flatMap(({ port: id }): Port[] =>
    equal(trustOf(before, id), trustOf(after, id)) ? [] : [after.port.get(id)!],
  );
  if (trusted.length > 0)
    steps.push({
      what: `Trust ${portsTitle(after, trusted)}`,
      why: 'so that whoever is meant to speak is heard from the first moment',
    });
  const bound = [...after.binding.values()].filter(({ id }) => !before.binding.get(id));
  if (bound.length > 0)
    steps.push({
      what: `Enter ${bound.length} ${bound.length === 1 ? 'binding' : 'bindings'} at ${names(
        after,
        'device',
        bound.map(({ device }) => device),
      )}`,
      why: 'fixed addresses never ask for a lease',
    });
  const on = (guard: keyof VlanGuards, what: string, why: string) => {
    const guards = newly(before, after, guard);
    if (guards.length === 0) return null;
    const vlans = guards.map(({ vlan }) => vlan);
    const boxes = guards.map(({ device }) => device);
    steps.push({
      what: `${what} on at ${names(after, 'device', boxes)}: ${names(after, 'vlan', vlans)}`,
      why,
    });
    return vlans;
  };
  const watched = on('snooping', 'DHCP snooping', 'servers at other ports are silent from now on');
  const checks = ['inspection', 'sourceGuard'] as const;
  const lease = longestLease(after, watched ?? []);
  if (watched && lease > 0 && checks.some((guard) => newly(before, after, guard).length > 0))
    steps.push({
      what: `Wait ${hours(lease / 2)}, or let every client ask again`,
      why: 'a lease from before is not known until its client asks again',
    });
  on('inspection', 'ARP inspection', 'by now every address that belongs there is known');
  on('sourceGuard', 'Source guard', 'what passes ARP inspection passes here');
  on('option82', 'Option 82', 'requests name the port they came by');
  on('raGuard', 'RA guard', 'it needs no bindings');
  on('dhcp6Guard', 'DHCPv6 guard', 'it needs no bindings');
  on('sourceGuard6', 'IPv6 source guard', 'by then every lease that is asked for again is known');
  return steps;
}

/** The plan with guards switched on: as they are, or with the trust and the bindings they need. Throws a Refusal where it cannot be. */
export function switchedOn(
  plan: Plan,
  input: z.output<typeof setVlanGuards.input>,
  withNeeds: boolean,
): Plan {
  const draft = new Draft(plan, 'tried');
  (withNeeds ? switchOnGuards : setVlanGuards).run(draft, input);
  return draft.plan;
}
