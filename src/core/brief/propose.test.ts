import fc from 'fast-check';
import { FindingsEngine } from '../findings';
import { type AnyRecord, type Plan, Refusal, applySteps, finish, recordIn, tableNames } from '../plan';
import { askAll } from '../rehearse';
import { type DrawnBrief, anyBrief, briefPlan } from '../testing/brief';
import { done } from '../testing/plans';
import { moreThan, runs } from '../testing/runs';
import { type Accepted, type Proposal, acceptedFrom, propose } from '.';

const proposedOn = (plan: Plan, accepted?: Accepted): Proposal | null => {
  try {
    return finish(propose(plan, {}, accepted));
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
};
/** The proposal of a drawn brief; null where the brief cannot be planned, which is said as a refusal. */
const proposed = (drawn: DrawnBrief) => proposedOn(briefPlan(drawn));

/** What says that something is too small for what the brief asks, or for what is to come. */
const TOO_SMALL = ['pool-small', 'ports-short', 'subnet-small', 'not-powered', 'vlan-limit'];

test('whatever is drawn, nothing stops the plan, everything fits, and every kept question is answered as asked', () => {
  let planned = 0;
  let kept = 0;
  let asked = 0;
  fc.assert(
    fc.property(anyBrief, (drawn) => {
      const proposal = proposed(drawn);
      if (!proposal) return;
      planned++;
      kept += proposal.brief.wishes.length - proposal.unmet.length;
      const wrong = new FindingsEngine(proposal.plan, null)
        .all()
        .filter(({ severity, check }) => severity === 'stop' || TOO_SMALL.includes(check));
      expect(wrong.map(({ check, what }) => `${check}: ${what}`)).toEqual([]);
      const askings = askAll(proposal.plan, null);
      asked += askings.length;
      const otherwise = askings.filter(({ asExpected }) => !asExpected);
      expect(otherwise.map(({ question, answer }) => `${question.why}: ${answer.summary}`)).toEqual([]);
    }),
    { numRuns: runs(300) },
  );
  expect(planned).toBeGreaterThan(moreThan(240));
  expect(kept).toBeGreaterThan(moreThan(150));
  expect(asked).toBeGreaterThan(moreThan(900));
});

const keysOf = (plan: Plan): string[] =>
  tableNames.flatMap((table) =>
    [...(plan[table].values() as Iterable<AnyRecord>)].map((record) => JSON.stringify(record, plain)),
  );
const plain = (_key: string, value: unknown) => (typeof value === 'bigint' ? `${value}n` : value);

test('the same brief gives the same plan, and what was accepted is proposed as it stands', () => {
  fc.assert(
    fc.property(anyBrief, (drawn) => {
      const first = proposed(drawn);
      if (!first) return;
      expect(keysOf(proposed(drawn)!.plan)).toEqual(keysOf(first.plan));
      const again = proposedOn(first.plan, acceptedFrom(first.steps))!;
      expect(again.steps.map(({ table, before, after }) => [table, before, after])).toEqual([]);
    }),
    { numRuns: runs(60) },
  );
});

const idsOf = (plan: Plan): string[] => [...plan.device.values()].map(({ id }) => id);

test('where somebody put boxes on the map keeps no box, and stays with those that are kept', () => {
  let gone = 0;
  let stayed = 0;
  fc.assert(
    fc.property(anyBrief, (drawn) => {
      const first = proposed(drawn);
      if (!first) return;
      const accepted = acceptedFrom(first.steps);
      let moved = first.plan;
      for (const device of idsOf(first.plan))
        moved = done(moved, 'putOnMap', { device, x: stayed, y: -gone });
      const smaller = (plan: Plan): Proposal | null => {
        const steps = [...plan.need.values()].map((need) => ({
          table: 'need' as const,
          id: need.id,
          before: need,
          after: { ...need, count: 1 },
        }));
        const applied = applySteps(plan, steps);
        return applied.ok ? proposedOn(applied.plan, accepted) : null;
      };
      const [plain, again] = [smaller(first.plan), smaller(moved)];
      if (!plain || !again) return expect(again).toBe(plain);
      expect(idsOf(again.plan)).toEqual(idsOf(plain.plan));
      for (const position of moved.mapPosition.values()) {
        const kept = again.plan.device.get(position.device!) !== undefined;
        expect(again.plan.mapPosition.get(position.id)).toEqual(kept ? position : undefined);
        if (kept) stayed++;
        else gone++;
      }
    }),
    { numRuns: runs(40) },
  );
  expect(Math.min(gone, stayed)).toBeGreaterThan(moreThan(20));
});

/** A change somebody makes to what was accepted, by a number that chooses. */
type Touch = (plan: Plan, proposal: Proposal, n: number) => Plan;
const nth = <T>(items: Iterable<T>, n: number): T | undefined => {
  const all = [...items];
  return all[n % Math.max(1, all.length)];
};
const touched =
  (table: (typeof tableNames)[number], fields: (n: number) => object): Touch =>
  (plan, _, n) => {
    const record = nth(plan[table].values() as Iterable<AnyRecord>, n);
    if (!record) return plan;
    const applied = applySteps(plan, [
      { table, id: record.id, before: record, after: { ...record, ...fields(n) } } as never,
    ]);
    return applied.ok ? applied.plan : plan;
  };
const touches: readonly Touch[] = [
  touched('vlan', (n) => ({ name: `Renamed ${n}`, vid: 3000 + (n % 900) })),
  touched('subnet', () => ({ pinned: true })),
  touched('radio', () => ({ kept: true })),
  touched('device', (n) => ({ name: `mine-${n}` })),
  touched('port', () => ({ label: 'do not unplug' })),
  touched('box', () => ({ serial: 'X1' })),
  touched('ssid', (n) => ({ name: `our net ${n % 7}` })),
  touched('uplink', () => ({ monitor: 0xc0_00_02_01 })),
  touched('zone', () => ({ name: 'Ours' })),
  touched('cable', () => ({ length: 12, label: 'C-7' })),
];

test('what somebody has set since stays as it is, field by field, whatever the brief says now', () => {
  let seen = 0;
  fc.assert(
    fc.property(
      anyBrief,
      fc.array(fc.tuple(fc.nat(touches.length - 1), fc.nat(1000)), { minLength: 1, maxLength: 5 }),
      fc.nat(30),
      (drawn, set, more) => {
        const first = proposed(drawn);
        if (!first) return;
        const accepted = acceptedFrom(first.steps);
        let plan = first.plan;
        for (const [which, n] of set) plan = touches[which]!(plan, first, n);
        const need = nth(plan.need.values(), more)!;
        const grownBrief = applySteps(plan, [
          { table: 'need', id: need.id, before: need, after: { ...need, count: need.count + more } },
        ]);
        if (!grownBrief.ok) throw new Error('the brief cannot be changed');
        const again = proposedOn(grownBrief.plan, accepted);
        if (!again) return;
        for (const { id, pinned, prefix } of plan.subnet.values())
          if (pinned) expect(again.plan.subnet.get(id)?.prefix).toEqual(prefix);
        for (const { id, kept, channel } of plan.radio.values())
          if (kept) expect(again.plan.radio.get(id)?.channel).toBe(channel);
        for (const table of tableNames)
          for (const record of plan[table].values() as Iterable<AnyRecord>) {
            const base = accepted.get(`${table} ${record.id}`) as Record<string, unknown> | undefined;
            if (!base) continue;
            const now = recordIn(again.plan, table, record.id) as Record<string, unknown> | undefined;
            for (const [field, value] of Object.entries(record)) {
              if (JSON.stringify(value, plain) === JSON.stringify(base[field], plain)) continue;
              seen++;
              expect([table, field, now?.[field]]).toEqual([table, field, value]);
            }
          }
      },
    ),
    { numRuns: runs(100) },
  );
  expect(seen).toBeGreaterThan(moreThan(150));
});
