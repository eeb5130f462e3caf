import type { Pool } from 'mysql2/promise';
import { perform } from '../core/edit';
import { type Plan, applyChange, encodePlan, planOfLists } from '../core/plan';
import { takenCall } from '../core/testing/inputs';
import { drawPlan, withEveryKind } from '../core/testing/kinds';
import { soundPolicy } from '../core/testing/policy';
import { runs } from '../core/testing/runs';
import { soundTrees } from '../core/testing/trees';
import { revisionOf } from '../db/sites';
import { Commits } from './commit';
import { Plans } from './plans';
import { AT, bodyOf, none, stored, storedSite, testDatabase } from './testing';

let pool: Pool;
beforeAll(async () => {
  pool = await testDatabase();
});
afterAll(() => pool.end());

const sites: readonly (readonly [string, Plan])[] = [
  ['a site of everything', withEveryKind(soundTrees(soundPolicy()), 5)],
  ...[1, 2, 3].map((seed) => [`drawn plan ${seed}`, drawPlan(seed)] as const),
];

test.each(sites)(
  'of %s the tables hold what each operation makes, and what undoing all leaves',
  async (_name, start) => {
    const site = await storedSite(pool, start);
    const commits = new Commits(pool, new Plans(pool));
    let plan = (await stored(pool, site)).plan;
    expect(encodePlan(plan)).toEqual(encodePlan(start));
    const made: string[] = [];
    for (let seed = 0; made.length < runs(60); seed++) {
      const call = takenCall(plan, seed * 7919 + 13);
      if (!call) continue;
      const body = bodyOf(made.length, call);
      const saved = await commits.save(site, body, AT);
      if (saved!.revision === null) continue;
      const applied = applyChange(plan, perform(plan, call, body.seed));
      if (!applied.ok) throw new Error(`${call.operation} does not apply`);
      plan = applied.plan;
      made.push(body.seed);
      // A plan that is read anew knows only what the tables hold.
      expect([call.operation, encodePlan((await stored(pool, site)).plan)]).toEqual([
        call.operation,
        encodePlan(plan),
      ]);
    }
    planOfLists(encodePlan(plan));
    for (const undoes of made.reverse())
      await commits.save(site, bodyOf(0, none, { kind: 'undo', undoes } as never), AT);
    expect(encodePlan((await stored(pool, site)).plan)).toEqual(encodePlan(start));
    expect(await revisionOf(pool, site)).toBe(2 * made.length);
  },
);
