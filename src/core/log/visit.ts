import { type Visit, is } from './fold';

/** What became of a visit. */
export interface VisitSum {
  /** Settings done in runs, and lines of settings ticked. */
  readonly settings: number;
  readonly tests: number;
  /** Of them those that came out otherwise. */
  readonly differing: number;
  /** Things measured: entries with a reading. */
  readonly measured: number;
  readonly opened: number;
  readonly mended: number;
  /** The change of the plan at its beginning, and the last one that something was written at. */
  readonly from: number;
  readonly to: number;
}

/** What was done, measured and changed while somebody was there. */
export function sumOf({ begun, ended, entries }: Visit): VisitSum {
  const sum = (all: readonly number[]) => all.reduce((a, b) => a + b, 0);
  const ticked = sum(entries.filter(is('tick')).map(({ body }) => (body.done ? 1 : -1) * body.lines.length));
  const done = entries.filter(is('result')).filter(({ body }) => body.outcome === 'done');
  const tests = entries.filter(is('test'));
  return {
    settings: sum(done.map(({ body }) => body.steps.length)) + Math.max(0, ticked),
    tests: tests.length,
    differing: tests.filter(({ body }) => body.outcome === 'differs').length,
    measured: entries.filter(({ body }) => 'reading' in body && body.reading !== '').length,
    opened: entries.filter(is('defect')).length,
    mended: entries.filter(is('defectState')).filter(({ body }) => body.state === 'mended').length,
    from: begun.revision,
    to: Math.max(...[begun, ...entries, ...(ended ? [ended] : [])].map(({ revision }) => revision)),
  };
}
