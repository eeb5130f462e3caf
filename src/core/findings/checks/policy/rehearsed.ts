import { type Difference, differencesIn, looseWires } from '../../../rehearse';
import type { Plan } from '../../../plan';
import type { Report, SiteCheck } from '../../finding';
import { policyCheck } from './shared';

/** What is meant against what the rehearsed network does: a difference of many pairs is one finding at its cause. */

function* grouped(
  differences: readonly Difference[],
  kind: Difference['kind'],
  report: (list: readonly Difference[]) => Report,
): Generator<Report> {
  const byRecord = new Map<string, Difference[]>();
  for (const item of differences) {
    if (item.kind !== kind) continue;
    const list = byRecord.get(item.on.id);
    if (list) list.push(item);
    else byRecord.set(item.on.id, [item]);
  }
  for (const list of byRecord.values()) yield report(list);
}

const pairsOf = (list: readonly Difference[]): string => {
  const pairs = [...new Set(list.map(({ from, to }) => `${from.name} to ${to.name}`))];
  return `${pairs.slice(0, 3).join(', ')}${pairs.length > 3 ? ` and ${pairs.length - 3} more pair${pairs.length === 4 ? '' : 's'}` : ''}`;
};
const whyOf = (list: readonly Difference[]): string => {
  const causes = [...new Map(list.map((item) => [item.cause, item.why])).values()];
  return `${causes[0]}${causes.length > 1 ? ` And ${causes.length - 1} more causes here.` : ''}`;
};
const alsoOf = (list: readonly Difference[]) => [
  ...new Map(
    list
      .flatMap(({ from, to, also }) => [
        ...also,
        { table: 'zone' as const, id: from.id },
        { table: 'zone' as const, id: to.id },
      ])
      .map((ref) => [ref.id, ref]),
  ).values(),
];

function* excessIn(plan: Plan): Generator<Report> {
  const told = new Set<string>();
  for (const report of grouped(
    // A box without a filter has a finding of its own.
    differencesIn(plan).filter(({ cause }) => !cause.startsWith('filter')),
    'excess',
    (list) => ({
      severity: 'stop',
      on: list[0]!.on,
      also: alsoOf(list),
      what: `${list[0]!.from.name} reaches ${list[0]!.to.name} past every rule`,
      because: `${whyOf(list)} Not allowed is ${pairsOf(list)}.`,
      remedies: list[0]!.remedies,
    }),
  )) {
    told.add(report.on.id);
    yield report;
  }
  for (const { on, also, a, b, why, remedies } of looseWires(plan)) {
    if (told.has(on.id)) continue;
    told.add(on.id);
    yield {
      severity: 'stop',
      on,
      also,
      what: `${plan.vlan.get(a)!.name} reaches ${plan.vlan.get(b)!.name} past every rule`,
      because: `${why} Not both are in a zone, so nothing could be decided for them.`,
      remedies,
    };
  }
}

const excess = policyCheck('intent-excess', excessIn);

const missing = policyCheck('intent-missing', (plan) =>
  grouped(differencesIn(plan), 'missing', (list) => ({
    severity: 'fix',
    on: list[0]!.on,
    also: alsoOf(list),
    what: `What ${list[0]!.from.name} may do does not work`,
    because: `${whyOf(list)} Allowed is ${pairsOf(list)}.`,
    remedies: list[0]!.remedies,
  })),
);

export const rehearsedChecks: readonly SiteCheck[] = [excess, missing];
