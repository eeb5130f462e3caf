import fc from 'fast-check';
import { readPlanFile, writePlanFile } from '../../formats';
import { drawPlan, drawnPlan } from '../../testing/kinds';
import { stepsBetween } from '../between';
import { applySteps } from '../change';
import type { Collection } from '../collection';
import { Draft } from '../draft';
import { equal } from '../equal';
import { recordIn, withRecord } from '../plan';
import { type AnyRecord, type TableName, kinds, tableNames } from '../records';
import { referencedIds, references } from '../references';
import type { RecordRef } from '../refusal';
import { removalOf, removeRecord, removeRecords } from '../remove';
import { recordTitle } from '../words';
import { schemaOf } from '../record-wire';
import { decodePlan, encodePlan } from '../wire';
import { fieldsOf } from './kind';
import { runs } from '../../testing/runs';

const recordsOf = (plan: ReturnType<typeof drawPlan>, table: TableName) => [
  ...(plan[table].values() as Iterable<AnyRecord>),
];

describe('the register of kinds', () => {
  test('lists parents before children, and every reference leads to a kind', () => {
    tableNames.forEach((table, at) => {
      for (const { to } of references[table])
        expect([table, to, tableNames.indexOf(to) < at]).toEqual([table, to, true]);
    });
  });

  test('knows a label, a way of storing and limits of every field', () => {
    for (const table of tableNames)
      for (const { name, label, stored, max } of fieldsOf(kinds[table].fields)) {
        expect([table, name, label.length > 0]).toEqual([table, name, true]);
        if (stored === 'whole' || stored === 'text') expect(max).toEqual(expect.any(Number));
      }
  });
});

describe('plans drawn from the definitions', () => {
  test('come out the same whether many steps are put in one by one or at once', () => {
    fc.assert(
      fc.property(drawnPlan, drawnPlan, (from, to) => {
        const steps = stepsBetween(from, to);
        let one: ReturnType<typeof drawPlan> = from;
        for (const { table, id, after } of steps) one = withRecord(one, table, id, after);
        const all = applySteps(from, steps);
        if (!all.ok) throw new Error('does not apply');
        expect(encodePlan(all.plan)).toEqual(encodePlan(one));
        for (const table of tableNames) {
          const [a, b] = [all.plan[table] as Collection<AnyRecord>, one[table] as Collection<AnyRecord>];
          expect([...a.allGroups()].length).toBe([...b.allGroups()].length);
          expect(a.size).toBe(b.size);
          const earlier = from[table] as Collection<AnyRecord>;
          expect(a.differences(earlier)).toEqual(b.differences(earlier));
        }
        // What does not fit is found at the same step.
        const twice = applySteps(all.plan, steps);
        const alone = steps.findIndex(
          (step) => !equal(recordIn(all.plan, step.table, step.id) ?? null, step.before),
        );
        expect(twice.ok ? -1 : steps.indexOf(twice.failed)).toBe(alone);
      }),
      { numRuns: runs(60) },
    );
  });

  test('are written and read without checks as their schemas write and read them', () => {
    for (let seed = 0; seed < runs(80); seed++) {
      const plan = drawPlan(seed);
      const wire = encodePlan(plan);
      const read = decodePlan(wire);
      for (const table of tableNames) {
        const records = new Map(recordsOf(plan, table).map((record) => [record.id, record]));
        for (const item of wire[table]!) {
          const id = item.id as string;
          const checked = schemaOf(table).encode(records.get(id)! as never);
          expect(JSON.stringify(item)).toBe(JSON.stringify(checked));
          expect(recordIn(read, table, id)).toEqual(schemaOf(table).decode(checked as never));
        }
      }
    }
  });

  test('have records of every kind, each optional field filled and empty', () => {
    const seen = new Set<string>();
    for (let seed = 0; seed < 40; seed++) {
      const plan = drawPlan(seed);
      for (const table of tableNames)
        for (const record of recordsOf(plan, table))
          for (const [field, value] of Object.entries(record)) {
            const empty = value === null || (Array.isArray(value) && value.length === 0);
            seen.add(`${table} ${field} ${empty ? 'empty' : 'filled'}`);
          }
    }
    const never = tableNames.flatMap((table) =>
      Object.keys(kinds[table].fields).filter((field) => !seen.has(`${table} ${field} filled`)),
    );
    expect(never).toEqual([]);
  });

  test('are written to a file and read back the same', () => {
    fc.assert(
      fc.property(drawnPlan, (plan) => {
        expect(encodePlan(readPlanFile(writePlanFile(plan)))).toEqual(encodePlan(plan));
      }),
      { numRuns: runs(60) },
    );
  });

  test('have a title for every record, also where what it speaks of is gone', () => {
    const plan = drawPlan(3);
    const bare = drawPlan(3, 0);
    for (const table of tableNames)
      for (const record of recordsOf(plan, table))
        for (const within of [plan, bare])
          expect(recordTitle(within, table, record)).not.toMatch(/^$|undefined|null|\[object/);
  });
});

describe('removing a record', () => {
  const chosen = fc.tuple(drawnPlan, fc.nat(), fc.nat());
  const pick = (plan: ReturnType<typeof drawPlan>, a: number, b: number): RecordRef | null => {
    const table = tableNames[a % tableNames.length]!;
    const records = recordsOf(plan, table);
    return table === 'site' || records.length === 0 ? null : { table, id: records[b % records.length]!.id };
  };

  test('leaves no reference to nothing, and goes back in one step', () => {
    fc.assert(
      fc.property(chosen, ([plan, a, b]) => {
        const ref = pick(plan, a, b);
        if (!ref) return;
        const draft = new Draft(plan, 'r');
        removeRecord(draft, ref);
        expect(recordIn(draft.plan, ref.table, ref.id)).toBeUndefined();
        for (const table of tableNames)
          for (const { field, to } of references[table])
            for (const record of recordsOf(draft.plan, table))
              for (const id of referencedIds(record, field))
                if (!recordIn(draft.plan, to, id)) throw new Error(`${table}.${field} refers to nothing`);
        for (const { from, to } of draft.plan.rule.values())
          for (const party of [...from, ...to])
            for (const table of ['zone', 'vlan', 'device'] as const)
              if (table in party)
                expect(recordIn(draft.plan, table, (party as Record<string, string>)[table]!)).toBeDefined();
        // A rule whose parties are gone must not come to speak of everybody.
        for (const { id, from, to } of draft.plan.rule.values()) {
          const was = plan.rule.get(id)!;
          expect([from.length === 0, to.length === 0]).toEqual([was.from.length === 0, was.to.length === 0]);
        }
        const { steps } = draft.change('');
        const after = applySteps(plan, steps);
        expect(after.ok && encodePlan(after.plan)).toEqual(encodePlan(draft.plan));
      }),
      { numRuns: runs(300) },
    );
  });

  test('is previewed as it is done', () => {
    fc.assert(
      fc.property(chosen, ([plan, a, b]) => {
        const ref = pick(plan, a, b);
        if (!ref) return;
        const { removed, changed } = removalOf(plan, [ref]);
        const draft = new Draft(plan, 'r');
        removeRecord(draft, ref);
        for (const { table, id } of removed) expect(recordIn(draft.plan, table, id)).toBeUndefined();
        for (const { table, id } of changed)
          expect(recordIn(draft.plan, table, id)).not.toBe(recordIn(plan, table, id));
        const gone = tableNames.flatMap((table) =>
          recordsOf(plan, table).filter(({ id }) => !recordIn(draft.plan, table, id)),
        );
        expect(gone).toHaveLength(removed.length + 1);
      }),
      { numRuns: runs(200) },
    );
  });

  test('of many leaves what removing one after the other leaves', () => {
    fc.assert(
      fc.property(drawnPlan, fc.constantFrom(...tableNames), fc.nat(), (plan, table, which) => {
        const ids = recordsOf(plan, table).flatMap(({ id }, at) =>
          (which >> at) & 1 && table !== 'site' ? [id] : [],
        );
        const [together, singly] = [new Draft(plan, 'r'), new Draft(plan, 'r')];
        removeRecords(together, table, new Set(ids));
        for (const id of ids) if (recordIn(singly.plan, table, id)) removeRecord(singly, { table, id });
        expect(encodePlan(together.plan)).toEqual(encodePlan(singly.plan));
      }),
      { numRuns: runs(300) },
    );
  });

  test('of one that is gone already is refused', () => {
    const draft = new Draft(drawPlan(1), 'r');
    expect(() => removeRecord(draft, { table: 'vlan', id: 'nobody' })).toThrow('no longer in the plan');
  });
});
