import { formatAddress } from '../address';
import { routersIn } from '../model/routing';
import { fabric } from '../model/switching';
import { type AnyRecord, type Plan, type TableName, interfacesOf, vlansOf, withRecords } from '../plan';
import { farAddress } from '../rehearse';
import { layBridge, layCables, layInside } from './boxes';
import { boxOfGuest } from './guests';
import { layDefault, layHost, ownRules } from './hosts';
import { layRouter, rulesetOf } from './routers';
import { type LaidQuestions, layQuestions } from './questions';
import { INTERNET, type LaidPlan, Site } from './site';

/**
 * A plan as a network on a kernel: boxes as bridges, routers with their rulesets, hosts, and an Internet around them. `ports` are those
 * that will be asked on: who keeps no track lets answers from them in.
 */
export function laidPlan(plan: Plan, today: string | null, ports: readonly number[]): LaidPlan {
  return laid(new Site(), plan, today, ports);
}

export interface LaidWithQuestions extends LaidPlan, LaidQuestions {
  /** The plan as it was laid. */
  readonly plan: Plan;
  /** Where somebody can be plugged in, segment by segment. */
  readonly sockets: readonly { readonly box: string; readonly vid: number; readonly wire: string }[];
}

/** The same with whoever is needed to ask the kept questions, on interfaces that are called alike on every box. */
export function laidWithQuestions(named: Plan, today: string | null): LaidWithQuestions {
  const plan = withoutNames(named);
  const site = new Site();
  const ports = [...new Set([...plan.question.values()].flatMap(({ port }) => port ?? []))];
  const laying = laid(site, plan, today, ports);
  const questions = layQuestions(site, plan, today);
  const sockets = vlansOf(plan).flatMap((vlan) => {
    const at = boxOfGuest(plan, { place: { kind: 'assumed', device: null } }, vlan);
    return at ? [{ box: at.device, vid: vlan.vid, wire: at.wire }] : [];
  });
  return { ...laying, ...questions, plan, sockets, hosts: site.hosts, cables: site.cables };
}

/** Interfaces are called by their segments and uplinks by their number, whatever somebody called them in the configuration. */
const withoutNames = (plan: Plan): Plan =>
  withRecords(
    plan,
    new Map<TableName, ReadonlyMap<string, AnyRecord>>([
      ['interface', blank(plan.interface.values())],
      ['port', blank(plan.port.values())],
    ]),
  );
const blank = <R extends { readonly id: string }>(records: Iterable<R>) =>
  new Map([...records].map((record) => [record.id, { ...record, name: '' } as unknown as AnyRecord]));

function laid(site: Site, plan: Plan, today: string | null, ports: readonly number[]): LaidPlan {
  const routers = routersIn(plan);
  const { bridges } = fabric(plan);
  const boxes = new Set(bridges.map(({ device }) => device));
  site.add(INTERNET, true);
  for (const { device } of bridges) {
    site.add(device, routers.get(device)?.routes ?? false);
    site.link(device, 'link set lo up');
  }
  const ends = [...plan.device.values()].filter(
    ({ id }) => !boxes.has(id) && !routers.has(id) && interfacesOf(plan, id).length > 0,
  );
  for (const { id } of ends) site.add(id, false);
  site.link(INTERNET, `addr add ${formatAddress(farAddress(plan))}/32 dev lo`);
  site.link(INTERNET, `addr add ${formatAddress(farAddress(plan, 6))}/128 dev lo`);
  for (const bridge of bridges) layBridge(site, plan, bridge);
  layCables(site, plan);
  for (const bridge of bridges) layInside(site, plan, bridge);
  const barred: string[] = [];
  const addressed = ends.flatMap(({ id }) =>
    layHost(site, plan, id).map((address) => ({ device: id, address })),
  );
  for (const { id } of ends) layDefault(site, plan, id);
  for (const { device } of bridges) {
    const router = routers.get(device);
    if (router) layRouter(site, plan, router, barred);
    else layDefault(site, plan, device);
  }
  site.rules(
    INTERNET,
    `table inet shut {\nchain output {\ntype filter hook output priority filter;\n${barred.join('\n')}\n}\n}\n`,
  );
  for (const device of ends) site.rules(device.id, ownRules(plan, device));
  for (const { device } of routers.values())
    if (boxes.has(device.id)) site.rules(device.id, rulesetOf(plan, device, today, ports));
  return {
    hosts: site.hosts,
    cables: site.cables,
    ends: addressed,
    routers: [...routers.keys()].filter((id) => boxes.has(id)),
  };
}
