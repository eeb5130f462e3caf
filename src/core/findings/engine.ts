import type { Step } from '../plan/change';
import type { Plan } from '../plan/plan';
import type { Address, Device, Interface, Subnet, TableName, Vlan } from '../plan/records';
import {
  addressesOf,
  addressesOn,
  devicesNamed,
  hostOf,
  interfacesOf,
  interfacesWithMac,
} from '../plan/view';
import { equal } from '../plan/equal';
import { gatewayChecks } from './checks/gateways';
import { gearChecks } from './checks/gear';
import { hostChecks, mayHoldCameras } from './checks/hosts';
import { internetChecks } from './checks/internet';
import { identityChecks } from './checks/identities';
import { policyChecks } from './checks/policy';
import { questionChecks } from './checks/questions';
import { poolChecks } from './checks/pools';
import { treeChecks } from './checks/trees';
import { sizeChecks, subnetChecks } from './checks/subnets';
import { vlanChecks } from './checks/vlans';
import {
  type Check,
  type Finding,
  type IdentityCheck,
  type SiteCheck,
  type SubnetCheck,
  type Today,
  findingOf,
} from './finding';
import { repeated } from './repeated';
import { subnetView } from './subnet-view';

const siteChecks: readonly SiteCheck[] = [
  ...vlanChecks,
  ...subnetChecks,
  ...gearChecks,
  ...internetChecks,
  ...policyChecks,
  ...treeChecks,
  ...questionChecks,
];
const perSubnet: readonly SubnetCheck[] = [...sizeChecks, ...gatewayChecks, ...poolChecks, ...hostChecks];
export const allChecks: readonly Check[] = [
  ...siteChecks,
  ...perSubnet,
  ...identityChecks.mac,
  ...identityChecks.name,
];

export interface FindingsDiff {
  readonly removed: readonly string[];
  readonly added: readonly Finding[];
}

/**
 * Keeps the findings of a plan up to date. A full run looks at everything once; after a change only the subjects it
 * touched (subnets, MAC addresses, names, and the few checks over the whole site) are looked at again. Law: after any
 * sequence of changes `all()` equals that of a new engine on the same plan.
 */
export class FindingsEngine {
  /** Findings by subject: a site check, a subnet, a MAC address or a name. */
  private readonly bySubject = new Map<string, readonly Finding[]>();

  constructor(
    private plan: Plan,
    private readonly today: Today = null,
  ) {
    for (const check of siteChecks) this.runSite(check);
    for (const subnet of plan.subnet.values()) this.runSubnet(subnet.id);
    for (const [mac, interfaces] of repeated(plan.interface, (item) => item.mac))
      this.runIdentity(identityChecks.mac, mac, interfaces);
    for (const [name, devices] of repeated(plan.device, (device) => device.name.toLowerCase()))
      this.runIdentity(identityChecks.name, name, devices);
  }

  all(): Finding[] {
    return [...this.bySubject.values()].flat();
  }

  /** Moves to `next`, which is the engine's plan with `steps` applied, and says which findings went and came. */
  advance(next: Plan, steps: readonly Step[]): FindingsDiff {
    const dirty = touchedBy(this.plan, next, steps);
    this.plan = next;
    const before = new Map<string, Finding>();
    const after = new Map<string, Finding>();
    const rerun = (subject: string, run: () => void) => {
      for (const finding of this.bySubject.get(subject) ?? []) before.set(finding.key, finding);
      run();
      for (const finding of this.bySubject.get(subject) ?? []) after.set(finding.key, finding);
    };
    for (const check of siteChecks)
      if (check.reads.some((table) => dirty.tables.has(table)))
        rerun(`check ${check.id}`, () => this.runSite(check));
    for (const subnet of dirty.subnets) rerun(`subnet ${subnet}`, () => this.runSubnet(subnet));
    for (const mac of dirty.macs)
      rerun(`mac ${mac}`, () => this.runIdentity(identityChecks.mac, mac, interfacesWithMac(next, mac)));
    for (const name of dirty.names)
      rerun(`name ${name}`, () => this.runIdentity(identityChecks.name, name, devicesNamed(next, name)));
    return {
      removed: [...before.keys()].filter((key) => !after.has(key)),
      added: [...after.values()].filter((finding) => !equal(before.get(finding.key), finding)),
    };
  }

  private store(subject: string, findings: readonly Finding[]): void {
    if (findings.length > 0) this.bySubject.set(subject, findings);
    else this.bySubject.delete(subject);
  }

  private runSite(check: SiteCheck): void {
    const found = [...check.find(this.plan, this.today)].map((report) => findingOf(check, report));
    this.store(`check ${check.id}`, found);
  }

  private runSubnet(id: string): void {
    const subnet = this.plan.subnet.get(id);
    const found: Finding[] = [];
    if (subnet) {
      const view = subnetView(this.plan, subnet);
      for (const check of perSubnet)
        for (const report of check.find(this.plan, view)) found.push(findingOf(check, report));
    }
    this.store(`subnet ${id}`, found);
  }

  private runIdentity<R>(checks: readonly IdentityCheck<R>[], shared: string, records: readonly R[]): void {
    const found = checks.flatMap((check) =>
      [...check.find(this.plan, { shared, records })].map((report) => findingOf(check, report)),
    );
    this.store(`${checks[0]!.scope} ${shared}`, found);
  }
}

interface Touched {
  readonly tables: ReadonlySet<TableName>;
  readonly subnets: ReadonlySet<string>;
  readonly macs: ReadonlySet<string>;
  readonly names: ReadonlySet<string>;
}

/** The subjects whose findings may differ between two plans that are `steps` apart. */
function touchedBy(before: Plan, after: Plan, steps: readonly Step[]): Touched {
  const tables = new Set(steps.map((step) => step.table));
  const subnets = new Set<string>();
  const macs = new Set<string>();
  const names = new Set<string>();
  const interfaces = new Set<string>();
  let cameras = false;

  const touchInterface = (plan: Plan, id: string) => {
    interfaces.add(id);
    const item = plan.interface.get(id);
    if (!item) return;
    if (item.mac !== null) macs.add(item.mac);
    const device = plan.device.get(item.device);
    if (device) names.add(device.name.toLowerCase());
    for (const address of addressesOn(plan, id)) subnets.add(address.subnet);
  };
  const touchDevice = (plan: Plan, device: Device) => {
    names.add(device.name.toLowerCase());
    for (const item of interfacesOf(plan, device.id)) touchInterface(plan, item.id);
  };
  const touchSubnet = (plan: Plan, subnet: Subnet) => {
    subnets.add(subnet.id);
    for (const address of addressesOf(plan, subnet.id))
      names.add(hostOf(plan, address).device.name.toLowerCase());
  };

  for (const step of steps)
    for (const [plan, record] of [
      [before, step.before],
      [after, step.after],
    ] as const) {
      if (record === null) continue;
      switch (step.table) {
        case 'site':
        case 'uplink':
          // Schools, bands and the domain reach into every subnet; so does what is outside an uplink.
          for (const subnet of plan.subnet.values()) touchSubnet(plan, subnet);
          break;
        case 'vlan':
          cameras ||= (record as Vlan).purpose === 'cameras';
          for (const subnet of plan.subnet.values()) if (subnet.vlan === step.id) subnets.add(subnet.id);
          break;
        case 'subnet':
          cameras ||= plan.vlan.get((record as Subnet).vlan)?.purpose === 'cameras';
          touchSubnet(plan, record as Subnet);
          break;
        case 'pool':
        case 'exclusion':
          subnets.add((record as { subnet: string }).subnet);
          break;
        case 'address':
          subnets.add((record as Address).subnet);
          touchInterface(plan, (record as Address).interface);
          break;
        case 'interface':
          if ((record as Interface).mac !== null) macs.add((record as Interface).mac!);
          touchInterface(plan, step.id);
          break;
        case 'device':
          touchDevice(plan, record as Device);
          break;
        case 'lan':
        case 'acceptance':
          break;
      }
    }

  // A subnet speaks of its DNS servers by interface, and of the camera segment as a place to move to.
  for (const subnet of after.subnet.values()) {
    const served = subnet.dns.some((server) => 'interface' in server && interfaces.has(server.interface));
    if (served || (cameras && mayHoldCameras(after.vlan.get(subnet.vlan)!))) subnets.add(subnet.id);
  }
  return { tables, subnets, macs, names };
}
