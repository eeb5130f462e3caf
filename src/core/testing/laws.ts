import fc from 'fast-check';
import { FindingsEngine, type Check } from '../findings';
import { perform } from '../edit';
import { applyChange, type Plan, Refusal } from '../plan';
import { type Damage, afresh, nextSeed } from './plans';
import { counted, moreThan, runs } from './runs';

const keys = (engine: FindingsEngine) => engine.all().sort((a, b) => (a.key < b.key ? -1 : 1));
const MINIMUM = 20;
/** A remedy that was taken so often is known; what is drawn further on is for the rare ones. */
const ENOUGH = 60;
const TODAY = '2026-05-04';

interface Kind {
  readonly name: string;
  /** Plans gone wrong; each kind must show every check of its own. */
  readonly drawn: fc.Arbitrary<() => Plan>;
  readonly walk: fc.Arbitrary<readonly (readonly [string, number, number])[]>;
  readonly damages: Readonly<Record<string, Damage>>;
  readonly checks: readonly Check[];
  readonly runs: number;
}

/** The laws every check keeps, on plans of one kind; a test file for each kind, so that they run side by side. */
export function findingLaws({ name: kind, drawn, walk, damages, checks, runs: most }: Kind): void {
  describe(`the laws of findings: ${kind}`, () => {
    test('following the steps gives the same findings as looking at everything again', () => {
      fc.assert(
        fc.property(drawn, walk, (make, path) => {
          const start = make();
          const engine = new FindingsEngine(start, TODAY);
          let plan = start;
          let known = new Map(engine.all().map((finding) => [finding.key, finding]));
          for (const [name, a, b] of path) {
            const next = damages[name]!(plan, a, b);
            const diff = engine.advance(next);
            known = new Map(known);
            for (const key of diff.removed) known.delete(key);
            for (const finding of diff.added) known.set(finding.key, finding);
            plan = next;
          }
          const full = keys(new FindingsEngine(afresh(plan), TODAY));
          expect(keys(engine)).toEqual(full);
          expect([...known.values()].sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(full);
        }),
        { numRuns: runs(200), seed: 11 },
      );
    });

    test('keys are unique; taking a remedy removes its finding and adds no stop, for every remedy there is', () => {
      const taken = new Map<string, number>();
      const offered = new Set<string>();
      const seen = new Set<string>();
      fc.assert(
        fc.property(drawn, (make) => {
          const plan = make();
          const before = new FindingsEngine(plan, TODAY).all();
          expect(new Set(before.map(({ key }) => key)).size).toBe(before.length);
          for (const finding of before) seen.add(finding.check);
          // A record that was at a stop already may be at another one afterwards; no other record may come to one. A loop is
          // the same loop when it is told, in the same words, at another of its cables.
          const stops = new Set(
            before.flatMap(({ severity, where, check, because }) =>
              severity === 'stop' ? [where[0]!.id, `${check}: ${because}`] : [],
            ),
          );
          for (const finding of before)
            for (const remedy of finding.remedies) {
              const name = `${finding.check} by ${remedy.operation}`;
              offered.add(name);
              if ((taken.get(name) ?? 0) >= ENOUGH) continue;
              let after;
              try {
                const applied = applyChange(plan, perform(plan, remedy, nextSeed()));
                if (!applied.ok) throw new Error(`${name} does not apply`);
                after = new FindingsEngine(applied.plan, TODAY).all();
              } catch (error) {
                // No room is an honest answer on a full subnet; anything else is a broken remedy.
                if (error instanceof Refusal && error.code === 'no-room') continue;
                throw error;
              }
              const left = after.map((item) => item.key);
              if (left.includes(finding.key))
                throw new Error(`${name} leaves ${finding.key}: ${finding.because}`);
              // What else was wrong at a plug is wrong in its new socket too.
              const along = new Set(
                remedy.operation === 'movePlug'
                  ? before
                      .filter(({ key, severity }) => severity === 'stop' && !left.includes(key))
                      .map(({ check }) => check)
                  : [],
              );
              const added = after.filter(
                ({ severity, where, check, because }) =>
                  severity === 'stop' &&
                  !along.has(check) &&
                  !stops.has(where[0]!.id) &&
                  !stops.has(`${check}: ${because}`),
              );
              if (added.length)
                throw new Error(`${name} on ${finding.because} adds ${added[0]!.key}: ${added[0]!.because}`);
              taken.set(name, (taken.get(name) ?? 0) + 1);
            }
        }),
        { numRuns: runs(most), seed: 7 },
      );
      // The remedies of the other kinds' checks are counted there.
      const own = new Set(checks.map((check) => check.id));
      const rare = [...offered].filter(
        (name) => own.has(name.split(' ')[0]!) && (taken.get(name) ?? 0) <= moreThan(MINIMUM - 1),
      );
      if (counted) expect(rare).toEqual([]);
      if (counted) expect(checks.map((check) => check.id).filter((id) => !seen.has(id))).toEqual([]);
    });
  });
}
