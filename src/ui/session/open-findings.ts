'use client';

import { type Finding, type Severity, acceptanceOf, severities } from '@/core/findings';
import { type Acceptance, recordIn, type Plan, addressesOn, interfacesOf, memo } from '@/core/plan';
import { usePlan, useSite } from './context';
import { isSolving } from './state';
import type { Findings } from './worker-client';

export interface JudgedFinding extends Finding {
  readonly accepted: Acceptance | null;
}

const weight = (finding: JudgedFinding) => (finding.accepted ? 10 : 0) + severities.indexOf(finding.severity);

/** Several places show the findings; each list is judged and sorted once for all of them. */
const judged = memo((findings: Findings) =>
  memo((acceptances: Plan['acceptance']): readonly JudgedFinding[] =>
    [...findings.values()]
      .map((finding) => ({ ...finding, accepted: acceptanceOf(acceptances, finding) }))
      .sort((a, b) => weight(a) - weight(b) || (a.key < b.key ? -1 : 1)),
  ),
);

const PUT_AWAY: readonly JudgedFinding[] = [];
/** All findings with their acceptance: open before accepted, stops first. None while an exercise is being solved. */
export function useFindings(): readonly JudgedFinding[] {
  const acceptances = usePlan().acceptance;
  const findings = judged(useSite((state) => state.findings))(acceptances);
  return useSite(isSolving) ? PUT_AWAY : findings;
}

export type Counts = Readonly<Record<Severity, number>>;

export function countOpen(findings: readonly JudgedFinding[]): Counts {
  const counts = { stop: 0, fix: 0, note: 0 };
  for (const finding of findings) if (!finding.accepted) counts[finding.severity]++;
  return counts;
}

export interface Location {
  readonly vlan: string | null;
  readonly address: string | null;
}

/** What something is about: records, the one it hangs on first. */
export type About = Pick<Finding, 'where'>;

/**
 * The segment and the fixed address a finding is about, as far as it is about one. Panel, grid and table all ask it of
 * every finding, so it is worked out once for a plan.
 */
export function locationOf(plan: Plan, finding: About): Location {
  const places = placesIn(plan);
  let place = places.get(finding);
  if (!place) places.set(finding, (place = findPlace(plan, finding)));
  return place;
}
const placesIn = memo((_plan: Plan) => new WeakMap<About, Location>());

function findPlace(plan: Plan, finding: About): Location {
  for (const { table, id } of finding.where) {
    if (table === 'address') {
      const address = plan.address.get(id);
      if (address)
        return { vlan: plan.subnet.get(address.subnet)!.vlan, address: address.gateway ? null : id };
    }
    if (table === 'vlan') return { vlan: id, address: null };
    if (table === 'subnet' || table === 'pool') {
      const record = recordIn(plan, table, id) as { vlan?: string; subnet?: string } | undefined;
      const vlan = record?.vlan ?? (record?.subnet ? plan.subnet.get(record.subnet)?.vlan : undefined);
      if (vlan) return { vlan, address: null };
    }
    if (table === 'interface' || table === 'device') {
      const items = table === 'interface' ? [id] : interfacesOf(plan, id).map((item) => item.id);
      const address = items.flatMap((item) => addressesOn(plan, item))[0];
      if (address) return { vlan: plan.subnet.get(address.subnet)!.vlan, address: address.id };
    }
  }
  return { vlan: null, address: null };
}

/** The box and the ports a finding about gear is about. */
export function gearPlaceOf(
  plan: Plan,
  finding: About,
): { device: string | null; ports: string[]; followed: string | null } {
  const ports = finding.where.filter(({ table }) => table === 'port').map(({ id }) => id);
  const known = ports.filter((id) => plan.port.get(id));
  const first = finding.where[0]!;
  const device =
    first.table === 'device'
      ? first.id
      : first.table === 'box'
        ? (plan.box.get(first.id)?.device ?? null)
        : known.length
          ? plan.port.get(known[0]!)!.device
          : null;
  return { device, ports: known, followed: first.table === 'vlan' ? first.id : null };
}

/** The uplink and the forward a finding of the Internet side is about. */
export function internetPlaceOf(
  plan: Plan,
  finding: About,
): { uplink: string | null; forward: string | null } {
  const [first] = finding.where;
  if (first?.table === 'forward')
    return { uplink: plan.forward.get(first.id)?.uplink ?? null, forward: first.id };
  return { uplink: first?.table === 'uplink' ? first.id : null, forward: null };
}

/** The network or the access point a finding of the air is about, and where it is seen. */
export function airPlaceOf(plan: Plan, finding: About) {
  const [first] = finding.where;
  if (first?.table === 'ssid') return { ssid: first.id, accessPoint: null, air: 'networks' as const };
  const device =
    first?.table === 'radio'
      ? plan.radio.get(first.id)?.device
      : first?.table === 'port'
        ? plan.port.get(first.id)?.device
        : first?.table === 'device'
          ? first.id
          : undefined;
  return { ssid: null, accessPoint: device ?? null, ...(device ? { air: 'air' as const } : {}) };
}

/** The zone, pair or rule a finding of who may talk is about. */
export function policyPlaceOf(plan: Plan, finding: About) {
  const [first] = finding.where;
  const cell = first?.table === 'cell' ? plan.cell.get(first.id) : undefined;
  return {
    zone: first?.table === 'zone' ? first.id : null,
    pairs: cell ? [{ from: cell.from, to: cell.to }] : [],
    rule: first?.table === 'rule' ? first.id : null,
  };
}
