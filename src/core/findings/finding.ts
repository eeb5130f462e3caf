import type { Remedy, Plan, Acceptance, Device, Interface, Port, Radio, Vlan, RecordRef } from '../plan';
import type { BoxView } from './box-view';
import type { SubnetView } from './subnet-view';

/**
 * stop: the network will not work or is open where it must not be. fix: works today, fails later or under a fault.
 * note: worth knowing.
 */
export type Severity = 'stop' | 'fix' | 'note';
export const severities: readonly Severity[] = ['stop', 'fix', 'note'];

export type Station =
  'brief' | 'segments' | 'addresses' | 'gear' | 'wireless' | 'internet' | 'policy' | 'guards' | 'rehearse';

export interface Finding {
  /** Check and the record it hangs on; stays the same while its wording and evidence change. */
  readonly key: string;
  readonly check: string;
  readonly station: Station;
  readonly severity: Severity;
  readonly what: string;
  /** Evidence with the numbers; an acceptance holds for exactly this evidence. */
  readonly because: string;
  readonly where: readonly RecordRef[];
  readonly remedies: readonly Remedy[];
}

/** A finding without what follows from its check. `on` is the record it hangs on. */
export type Report = Pick<Finding, 'severity' | 'what' | 'because'> & {
  readonly on: RecordRef;
  readonly also?: readonly RecordRef[];
  readonly remedies?: readonly Remedy[];
};

interface CheckOf<Scope extends string, Subject> {
  readonly id: string;
  readonly station: Station;
  readonly scope: Scope;
  readonly find: (plan: Plan, subject: Subject) => Iterable<Report>;
}

/** The day it is, as 2026-12-31, for what runs out; null where no day is to count. */
export type Today = string | null;
/** A check over the whole site. What it reads is recorded while it runs; see plan/derive. */
export type SiteCheck = CheckOf<'site', Today>;
/** A check of one box and what is plugged into it. */
export interface BoxCheck extends Pick<CheckOf<'box', BoxView>, 'id' | 'station' | 'scope'> {
  readonly find: (plan: Plan, subject: BoxView, today: Today) => Iterable<Report>;
}
/** A check of one VLAN. */
export type VlanCheck = CheckOf<'vlan', Vlan>;
/** A check within one subnet. */
export type SubnetCheck = CheckOf<'subnet', SubnetView>;
/** Records that may share what should be one's own, with that name or MAC. */
export interface Sharers<R> {
  readonly shared: string;
  readonly records: readonly R[];
}
export type IdentityCheck<R> = CheckOf<'mac' | 'name', Sharers<R>>;
/** A check over the interfaces that share a MAC address. */
export type MacCheck = IdentityCheck<Interface>;
/** A check over the devices that share a name. */
export type NameCheck = IdentityCheck<Device>;

/** A check of one port, where it is among those that the check looks at. */
export interface PortCheck extends CheckOf<'port', Port> {
  readonly ports: (plan: Plan) => ReadonlySet<string>;
}
/** A check of one radio that is on. */
export type RadioCheck = CheckOf<'radio', Radio>;

export type Check =
  SiteCheck | PortCheck | RadioCheck | BoxCheck | VlanCheck | SubnetCheck | MacCheck | NameCheck;

export function findingOf(check: Pick<Check, 'id' | 'station'>, report: Report): Finding {
  const { on, severity, what, because } = report;
  return {
    key: `${check.id}:${on.id}`,
    check: check.id,
    station: check.station,
    severity,
    what,
    because,
    where: report.also ? [on, ...report.also] : [on],
    remedies: report.remedies ?? [],
  };
}

/** The acceptance that holds for a finding: same key and unchanged evidence; null when it is open. */
export function acceptanceOf(
  acceptances: Plan['acceptance'],
  finding: Pick<Finding, 'key' | 'because'>,
): Acceptance | null {
  for (const acceptance of acceptances.values())
    if (acceptance.finding === finding.key && acceptance.evidence === finding.because) return acceptance;
  return null;
}
