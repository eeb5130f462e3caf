import { perform } from '../edit';
import { readPlanFile, writePlanFile } from '../formats';
import { drawnPlan } from '../testing/kinds';
import { runs } from '../testing/runs';
import fc from 'fast-check';
import { applyChange } from './change';
import { type WireStep, decodeStep, encodeStep } from './wire';

/** What version 5 called them. */
const lists = { listener: 'offer', lag: 'aggregate', stpPort: 'treePort' } as const;
const fields = { port: { lag: 'aggregate' } } as const;
type Lists = Record<string, Record<string, unknown>[]>;

const renamedField = (table: string, record: Record<string, unknown>) =>
  Object.fromEntries(
    Object.entries(record).map(([name, value]) => [
      (fields as Record<string, Record<string, string>>)[table]?.[name] ?? name,
      value,
    ]),
  );
const formerTable = (table: string): string => (lists as Record<string, string>)[table] ?? table;

/** A file of today with the names of version 5. */
function asVersion5(text: string): string {
  const file = JSON.parse(text) as { format: string; version: number; plan: Lists };
  const plan = Object.fromEntries(
    Object.entries(file.plan).map(([table, records]) => [
      formerTable(table),
      records.map((record) => renamedField(table, record)),
    ]),
  );
  return JSON.stringify({ ...file, version: 5, plan });
}

test('a file of version 5 is read with the names of today', () => {
  let [bundles, listeners, settings] = [0, 0, 0];
  fc.assert(
    fc.property(drawnPlan, (plan) => {
      bundles += plan.lag.size;
      listeners += plan.listener.size;
      settings += plan.stpPort.size;
      const text = writePlanFile(plan);
      const old = asVersion5(text);
      if (plan.lag.size > 0) expect(old).toContain('"aggregate":[{');
      expect(writePlanFile(readPlanFile(old))).toBe(text);
    }),
    { numRuns: runs(100) },
  );
  expect(Math.min(bundles, listeners, settings)).toBeGreaterThan(0);
});

test('a step that version 5 wrote is read, and written as today', () => {
  fc.assert(
    fc.property(drawnPlan, (plan) => {
      for (const table of ['listener', 'lag', 'stpPort', 'port'] as const)
        for (const record of plan[table].values()) {
          const now = encodeStep({ table, id: record.id, before: null, after: record });
          const old = {
            ...now,
            table: formerTable(table),
            after: renamedField(table, now.after!),
          } as unknown as WireStep;
          expect(encodeStep(decodeStep(old))).toEqual(now);
        }
    }),
    { numRuns: runs(50) },
  );
});

test('calls that a client queued under earlier names are understood', () => {
  const [plan] = fc
    .sample(drawnPlan, { numRuns: 200, seed: 3 })
    .filter((drawn) => drawn.listener.size > 0 && drawn.lag.size > 0);
  const [listener] = plan!.listener.values();
  const [bundle] = plan!.lag.values();
  for (const [call, table, id] of [
    [{ operation: 'removeOffer', input: { offer: listener!.id } }, 'listener', listener!.id],
    [{ operation: 'unbundle', input: { aggregate: bundle!.id } }, 'lag', bundle!.id],
  ] as const) {
    const applied = applyChange(plan!, perform(plan!, call, 'seed'));
    expect(applied.ok && applied.plan[table].get(id)).toBeUndefined();
  }
});
