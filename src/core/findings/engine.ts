import { derive, deriveBy, equal, type Plan, plainVlansOf } from '../plan';
import { gatewayChecks, gatewaySiteChecks } from './checks/gateways';
import { askingChecks, guardChecks } from './checks/guards';
import { gearBoxChecks, gearChecks, gearVlanChecks } from './checks/gear';
import { hostChecks } from './checks/hosts';
import { internetChecks } from './checks/internet';
import { identityChecks } from './checks/identities';
import { policyChecks } from './checks/policy';
import { questionChecks } from './checks/questions';
import { poolChecks, poolVlanChecks } from './checks/pools';
import { treeChecks } from './checks/trees';
import { sixChecks } from './checks/six';
import { sizeChecks, subnetChecks } from './checks/subnets';
import { vlanChecks } from './checks/vlans';
import { radioChecks, wirelessSiteChecks } from './checks/wireless';
import {
  type Check,
  type Finding,
  type IdentityCheck,
  type PortCheck,
  type Report,
  type SiteCheck,
  type SubnetCheck,
  type Today,
  type VlanCheck,
  findingOf,
} from './finding';
import { boxView, bridgingDevices } from './box-view';
import { type Watch, notChecked } from './left-out';
import { repeated } from './repeated';
import { subnetView } from './subnet-view';

const guarding = [...guardChecks, ...askingChecks];
const portChecks: readonly PortCheck[] = guarding.filter((check) => check.scope === 'port');
const siteChecks: readonly SiteCheck[] = [
  ...vlanChecks,
  ...subnetChecks,
  ...gatewaySiteChecks,
  ...gearChecks,
  ...wirelessSiteChecks,
  ...internetChecks,
  ...policyChecks,
  ...treeChecks,
  ...guarding.filter((check) => check.scope === 'site'),
  ...questionChecks,
];
const perSubnet: readonly SubnetCheck[] = [
  ...sizeChecks,
  ...sixChecks,
  ...gatewayChecks,
  ...poolChecks,
  ...hostChecks,
];
const perVlan: readonly VlanCheck[] = [...gearVlanChecks, ...poolVlanChecks];
export const allChecks: readonly Check[] = [
  ...siteChecks,
  ...radioChecks,
  ...portChecks,
  ...gearBoxChecks,
  ...perVlan,
  ...perSubnet,
  ...identityChecks.mac,
  ...identityChecks.name,
];

/** The findings of one check. */
const reported = (check: Pick<Check, 'id' | 'station'>, reports: Iterable<Report>): Finding[] =>
  [...reports].map((report) => findingOf(check, report));

/** What checks are about: which subjects there are, and the findings of one. Both know what they read. */
interface Scope {
  readonly subjects: (plan: Plan, today: Today) => Iterable<string>;
  readonly findings: (plan: Plan, subject: string) => readonly Finding[];
}

const checksById = new Map(siteChecks.map((check) => [check.id, check]));
const site: Scope = {
  subjects: (_plan, today) => siteChecks.map(({ id }) => `${id} ${today ?? ''}`),
  findings: deriveBy((plan, subject: string) => {
    const [id, today] = subject.split(' ') as [string, string];
    const check = checksById.get(id)!;
    return reported(check, check.find(plan, today || null));
  }),
};

const boxes: Scope = {
  subjects: (plan, today) => bridgingDevices(plan).map((device) => `${device} ${today ?? ''}`),
  findings: deriveBy((plan, subject: string) => {
    const [device, today] = subject.split(' ') as [string, string];
    const view = boxView(plan, device);
    return gearBoxChecks.flatMap((check) => reported(check, check.find(plan, view, today || null)));
  }),
};

const radios: Scope = {
  subjects: derive((plan) => [...plan.radio.values()].flatMap(({ id, enabled }) => (enabled ? [id] : []))),
  findings: deriveBy((plan, id: string) => {
    const radio = plan.radio.get(id)!;
    return radioChecks.flatMap((check) => reported(check, check.find(plan, radio)));
  }),
};

const ports: Scope = {
  subjects: derive((plan) => new Set(portChecks.flatMap((check) => [...check.ports(plan)]))),
  findings: deriveBy((plan, id: string) => {
    const port = plan.port.get(id)!;
    return portChecks
      .filter((check) => check.ports(plan).has(id))
      .flatMap((check) => reported(check, check.find(plan, port)));
  }),
};

const vlans: Scope = {
  subjects: derive((plan) => plainVlansOf(plan).map(({ id }) => id)),
  findings: deriveBy((plan, id: string) => {
    const vlan = plan.vlan.get(id)!;
    return perVlan.flatMap((check) => reported(check, check.find(plan, vlan)));
  }),
};

const subnets: Scope = {
  subjects: derive((plan) => [...plan.subnet.values()].map(({ id }) => id)),
  findings: deriveBy((plan, id: string) => {
    const view = subnetView(plan, plan.subnet.get(id)!);
    return perSubnet.flatMap((check) => reported(check, check.find(plan, view)));
  }),
};

/** Records that share what should be one's own: each thing shared is a subject. */
function identity<R>(
  checks: readonly IdentityCheck<R>[],
  sharing: (plan: Plan) => ReadonlyMap<string, readonly R[]>,
): Scope {
  const sharers = deriveBy((plan, shared: string) => sharing(plan).get(shared)!);
  return {
    subjects: (plan) => sharing(plan).keys(),
    findings: deriveBy((plan, shared: string) => {
      const records = sharers(plan, shared);
      return checks.flatMap((check) => reported(check, check.find(plan, { shared, records })));
    }),
  };
}
const macs = identity(
  identityChecks.mac,
  derive((plan) => repeated(plan.interface, ({ mac }) => mac)),
);
const names = identity(
  identityChecks.name,
  derive((plan) => repeated(plan.device, ({ name }) => name.toLowerCase())),
);

const scopes: readonly (readonly [string, Scope])[] = Object.entries({
  site,
  boxes,
  radios,
  ports,
  vlans,
  subnets,
  macs,
  names,
});

/** The findings by subject; those of a subject are the same list again until something they were read off changes. */
function findingsBySubject(plan: Plan, today: Today, watch: Watch | null): Map<string, readonly Finding[]> {
  const found = new Map<string, readonly Finding[]>();
  for (const [name, { subjects, findings }] of scopes)
    for (const subject of subjects(plan, today)) {
      const key = `${name} ${subject}`;
      const list = watch ? watched(plan, key, watch, () => findings(plan, subject)) : findings(plan, subject);
      if (list.length > 0) found.set(key, list);
    }
  return found;
}

/** What is found, or the finding that this was not looked at: one check that fails takes no other with it. */
function watched(
  plan: Plan,
  subject: string,
  { leftOut, begin }: Watch,
  find: () => readonly Finding[],
): readonly Finding[] {
  const not = (why: string) => [notChecked(plan, subject, why, (id) => checksById.get(id)?.station)];
  const why = leftOut.get(subject);
  if (why !== undefined) return not(why);
  begin(subject);
  try {
    return find();
  } catch (error) {
    return not(`It failed: ${error instanceof Error ? error.message : error}`);
  }
}

export interface FindingsDiff {
  readonly removed: readonly string[];
  readonly added: readonly Finding[];
}

/** The findings of a plan, and what becomes of them from one plan to the next. */
export class FindingsEngine {
  private bySubject: ReadonlyMap<string, readonly Finding[]>;

  /** Without a watch, a check that throws throws here. */
  constructor(
    plan: Plan,
    private readonly today: Today = null,
    private readonly watch: Watch | null = null,
  ) {
    this.bySubject = findingsBySubject(plan, today, watch);
  }

  all(): Finding[] {
    return [...this.bySubject.values()].flat();
  }

  /** Moves on to another plan and says which findings went and came. Quick where that one was made by changing this one. */
  advance(next: Plan): FindingsDiff {
    const [old, now] = [this.bySubject, findingsBySubject(next, this.today, this.watch)];
    this.bySubject = now;
    const before = new Map<string, Finding>();
    const after = new Map<string, Finding>();
    for (const [subject, list] of old)
      if (now.get(subject) !== list) for (const finding of list) before.set(finding.key, finding);
    for (const [subject, list] of now)
      if (old.get(subject) !== list) for (const finding of list) after.set(finding.key, finding);
    return {
      removed: [...before.keys()].filter((key) => !after.has(key)),
      added: [...after.values()].filter((finding) => !equal(before.get(finding.key), finding)),
    };
  }
}
