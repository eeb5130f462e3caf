import {
  type AnyRecord,
  type Device,
  type Plan,
  type Progress,
  type RecordOf,
  type Step,
  type TableName,
  type Work,
  boxOf,
  pick,
  planOf,
  recordIn,
  equal,
  referencedIds,
  references,
  removeRecord,
  routersOf,
  stepsBetween,
  tableNames,
} from '../plan';
import { writeNetwork } from './boxes';
import type { NetworkInput } from './network';
import { type Brief, type Choice, gather } from './gather';
import { writeGuards } from './guards';
import { type Decision, GATEWAY, type Hardware, type Occupied, type Standing } from './design';
import { hardwareOf } from './hardware';
import { linksOf, modelById, portsOf } from '../model/wiring';
import { type Accepted, KeyedDraft, acceptedKey } from './keyed';
import { type Unmet, writeLines } from './lines';
import { writePolicy } from './policy';
import { writeSegments } from './segments';

/** What a proposal is accepted by, in the order it is read. */
export const parts = [
  'segments',
  'boxes',
  'things',
  'addresses',
  'cables',
  'wireless',
  'internet',
  'policy',
  'guards',
  'questions',
] as const;
export type Part = (typeof parts)[number];

export interface Proposal {
  readonly choice: Choice;
  readonly brief: Brief;
  readonly hardware: Hardware;
  /** The plan as it would be. */
  readonly plan: Plan;
  /** What would change. */
  readonly steps: readonly Step[];
  /** By record: the part it belongs to. */
  readonly partOf: ReadonlyMap<string, string>;
  /** What was decided, by part, with why. */
  readonly decisions: Readonly<Partial<Record<Part, readonly Decision[]>>>;
  /** What is wished and cannot be had. */
  readonly unmet: readonly Unmet[];
}

const STAGES = 6;

/**
 * The plan a proposal begins with: what is there, without what was accepted earlier and nobody has touched since, unless
 * something that stays refers to it.
 */
function startOf(plan: Plan, accepted: Accepted): Plan {
  if (accepted.size === 0) return plan;
  const keep = new Set<string>();
  const waiting: { readonly table: TableName; readonly record: AnyRecord }[] = [];
  const stay = (table: TableName, record: AnyRecord) => {
    const key = acceptedKey(table, record.id);
    if (keep.has(key)) return;
    keep.add(key);
    waiting.push({ table, record });
  };
  for (const table of tableNames)
    for (const record of table === 'mapPosition' ? [] : (plan[table].values() as Iterable<AnyRecord>)) {
      const base = accepted.get(acceptedKey(table, record.id));
      if (base === undefined || !equal(record, base)) stay(table, record);
    }
  for (let next = waiting.pop(); next; next = waiting.pop())
    for (const { to, id } of referredTo(next.table, next.record)) {
      const record = recordIn(plan, to, id);
      if (record) stay(to, record);
    }
  return planOf(
    Object.fromEntries(
      tableNames.map((table) => [
        table,
        [...(plan[table].values() as Iterable<AnyRecord>)].filter(({ id }) =>
          keep.has(acceptedKey(table, id)),
        ),
      ]),
    ),
  );
}

/** The records one refers to; a rule through its parties. */
function referredTo(table: TableName, record: AnyRecord): { readonly to: TableName; readonly id: string }[] {
  const plain = references[table].flatMap(({ field, to }) =>
    referencedIds(record, field).map((id) => ({ to, id })),
  );
  if (table !== 'rule') return plain;
  const { from, to } = record as RecordOf<'rule'>;
  const parties = [...from, ...to].flatMap((party) =>
    Object.entries(party).flatMap(([kind, id]) =>
      typeof id === 'string' ? [{ to: kind as TableName, id }] : [],
    ),
  );
  return [...plain, ...parties];
}

/** The box everything goes out by: the one there is, or a new one. */
function gatewayOf(draft: KeyedDraft): Device {
  const known = routersOf(draft.plan).find(({ kind }) => kind === 'gateway');
  if (known) return known;
  const gateways = [...draft.plan.device.values()].filter(({ kind }) => kind === 'gateway');
  return (
    gateways.sort((a, b) => (a.name < b.name ? -1 : 1))[0] ??
    draft.under('boxes', 'gateway device', () =>
      draft.insert('device', { name: 'gw-1', kind: 'gateway', firewall: 'unknown' }),
    )
  );
}

/** Where somebody has plugged something of their own into boxes that were proposed earlier. */
function occupiedIn(draft: KeyedDraft, gateway: Device): Occupied {
  const ports = new Set(
    [...draft.plan.cable.values()]
      .filter(({ id }) => !draft.isProposed('cable', id))
      .flatMap(({ from, to }) => [from, to]),
  );
  return (key) => {
    const device = key === GATEWAY ? gateway.id : draft.idOf(key);
    const all = ports.size === 0 ? [] : portsOf(draft.plan, device);
    return new Set(all.flatMap(({ id, number }) => (ports.has(id) ? number : [])));
  };
}

/** The gateway as it stands, where its ports are recorded and are not the proposal’s own. */
function standingOf(draft: KeyedDraft, gateway: Device): Standing | null {
  const box = boxOf(draft.plan, gateway.id);
  if (!box || draft.isProposed('box', box.id)) return null;
  const ports = portsOf(draft.plan, gateway.id).filter(({ number }) => number > 0);
  const links = linksOf(draft.plan);
  // Ports as blocks of one each, so that they keep their numbers; what is missing between counts as taken.
  const last = Math.max(0, ...ports.map(({ number }) => number));
  const byNumber = new Map(ports.map((port) => [port.number, port]));
  const numbers = Array.from({ length: last }, (_, i) => i + 1);
  const isTaken = (number: number) => {
    const port = byNumber.get(number);
    return !port || links.has(port.id) || port.defective || port.role === 'uplink';
  };
  const { model: name, ...can } = box;
  return {
    model: {
      ...modelById.get('gateway-6')!,
      ...pick(can, ['vlanAware', 'vlanLimit', 'filter', 'layer3']),
      id: 'standing',
      name: `${gateway.name}, ${name}`,
      uplinks: [],
      blocks: numbers.map((number) => ({
        count: 1,
        media: byNumber.get(number)?.media === 'fibre' ? ('fibre' as const) : ('copper' as const),
        speed: byNumber.get(number)?.speed ?? 1000,
        rows: 1 as const,
        poeClass: null,
      })),
    },
    taken: new Set(numbers.filter(isTaken)),
  };
}

/** The layer-3 switch: there before the segments it routes. */
function coreOf(draft: KeyedDraft): Device {
  const taken = new Set(
    [...draft.plan.device.values()].map(({ id, name }) => (id === draft.idOf('core') ? '' : name)),
  );
  let name = 'core-1';
  for (let n = 2; taken.has(name); n++) name = `core-${n}`;
  return draft.under('boxes', 'core', () =>
    draft.insert('device', { name, kind: 'layer3-switch', firewall: 'unknown' }),
  );
}

/** What somebody deleted since it was accepted is not brought back, nor what hangs on it. */
function withoutDeleted(draft: KeyedDraft, plan: Plan, accepted: Accepted): void {
  for (const [key, record] of accepted) {
    const table = key.slice(0, key.indexOf(' ')) as TableName;
    if (recordIn(plan, table, record.id) || !recordIn(draft.plan, table, record.id)) continue;
    removeRecord(draft, { table, id: record.id });
  }
}

/** Where somebody put a box on the map is no reason to keep the box; it stays with those that do. */
function putOnMapAgain(draft: KeyedDraft, plan: Plan): void {
  for (const position of plan.mapPosition.values())
    if (position.device === null || draft.plan.device.get(position.device))
      draft.put('mapPosition', position.id, position);
}

/**
 * Works out a whole first plan from the brief of a plan. The same brief gives the same plan. What stands in the plan and was
 * not proposed stays as it is; what was accepted earlier is proposed anew where nobody has touched it since. Yields between its
 * stages. Throws a Refusal where the brief contradicts itself or does not fit.
 */
export function* propose(
  plan: Plan,
  choice: Partial<Choice> = {},
  accepted: Accepted = new Map(),
): Work<Proposal, Progress> {
  const brief = gather(plan, choice);
  const draft = new KeyedDraft(startOf(plan, accepted), plan, accepted);
  const gateway = gatewayOf(draft);
  const hardware = hardwareOf(brief, standingOf(draft, gateway), occupiedIn(draft, gateway));
  yield { done: 1, of: STAGES };
  const core = hardware.core && coreOf(draft);
  const boxes = hardware.switches.length + hardware.accessPoints.length + 1;
  const { segments, decisions: bySegment } = writeSegments(
    draft,
    brief,
    { gateway: gateway.id, core: core?.id ?? null },
    boxes,
  );
  yield { done: 2, of: STAGES };
  const input: NetworkInput = { draft, brief, hardware, segments, gateway, core };
  const written = writeNetwork(input);
  yield { done: 3, of: STAGES };
  const lines = writeLines(draft, brief, hardware, gateway.id, written.ports.get(GATEWAY)!);
  const policy = writePolicy(draft, brief, gateway.id, segments);
  yield { done: 4, of: STAGES };
  const guards = writeGuards(input, written);
  withoutDeleted(draft, plan, accepted);
  putOnMapAgain(draft, plan);
  yield { done: 5, of: STAGES };
  return {
    choice: brief.choice,
    brief,
    hardware,
    plan: draft.plan,
    steps: stepsBetween(plan, draft.plan),
    partOf: draft.partOf,
    decisions: {
      segments: bySegment,
      boxes: hardware.decisions,
      internet: lines.decisions,
      policy: policy.decisions,
      guards,
    },
    unmet: policy.unmet,
  };
}
