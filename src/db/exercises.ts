import type { Pool } from 'mysql2/promise';
import type { PlantedFault, Level, ExerciseReport, Kept } from '../core/exercises';
import { type Plan, type WireStep, decodeStep, encodeStep } from '../core/plan';
import { fromSqlTime, toSqlTime } from './columns';
import { rows, run, transaction } from './connection';
import { insertSite } from './sites';

/** Exercises: each is a site of its own, a copy with faults in it, and one row here that says which. */

type WireFault = Omit<PlantedFault, 'steps'> & { readonly steps: readonly WireStep[] };

const FIELDS =
  'site_id, original_id, original_name, original_revision, seed, level, learner, started_at, ended_at, hints, report';

const keptOf = (row: readonly unknown[], faults: readonly PlantedFault[]): Kept => ({
  original: { id: row[1] as string, name: row[2] as string, revision: row[3] as number },
  seed: row[4] as number,
  level: row[5] as Level,
  learner: row[6] as string,
  startedAt: fromSqlTime(row[7] as string),
  endedAt: row[8] === null ? null : fromSqlTime(row[8] as string),
  hints: JSON.parse(row[9] as string) as number[],
  report: row[10] === null ? null : (JSON.parse(row[10] as string) as ExerciseReport),
  faults,
});

/** Stores the copy with its faults as a new site, and what the exercise is. */
export const createExercise = (
  pool: Pool,
  siteId: string,
  plan: Plan,
  kept: Omit<Kept, 'endedAt' | 'report' | 'hints'>,
): Promise<void> =>
  transaction(pool, 'READ COMMITTED', async (connection) => {
    await insertSite(connection, siteId, plan, kept.startedAt);
    const faults: WireFault[] = kept.faults.map((fault) => ({
      ...fault,
      steps: fault.steps.map(encodeStep),
    }));
    const { original } = kept;
    await run(connection, 'INSERT INTO exercise VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, NULL, NULL)', [
      siteId,
      original.id,
      original.name,
      original.revision,
      kept.seed,
      kept.level,
      kept.learner,
      JSON.stringify(faults),
      JSON.stringify(faults.map(() => 0)),
      toSqlTime(kept.startedAt),
    ]);
  });

/** The exercise a site is; null for a site that is none. */
export async function exerciseOf(pool: Pool, siteId: string): Promise<Kept | null> {
  const [row] = await rows(pool, `SELECT ${FIELDS}, faults FROM exercise WHERE site_id = ?`, [siteId]);
  if (!row) return null;
  const faults = (JSON.parse(row[11] as string) as WireFault[]).map((fault) => ({
    ...fault,
    steps: fault.steps.map(decodeStep),
  }));
  return keptOf(row, faults);
}

/** The exercises made of a site, newest first, without their faults. */
export async function exercisesMadeOf(
  pool: Pool,
  original: string,
): Promise<({ readonly site: string } & Omit<Kept, 'faults'>)[]> {
  const found = await rows(
    pool,
    `SELECT ${FIELDS} FROM exercise WHERE original_id = ? ORDER BY started_at DESC, site_id`,
    [original],
  );
  return found.map((row) => {
    const { faults: _, ...kept } = keptOf(row, []);
    return { site: row[0] as string, ...kept };
  });
}

/** Records the hints taken; false when others were taken meanwhile, or it was handed in. */
export const keepHints = async (
  pool: Pool,
  siteId: string,
  before: readonly number[],
  after: readonly number[],
): Promise<boolean> =>
  (await run(pool, 'UPDATE exercise SET hints = ? WHERE site_id = ? AND hints = ? AND ended_at IS NULL', [
    JSON.stringify(after),
    siteId,
    JSON.stringify(before),
  ])) === 1;

/** Hands an exercise in; false when it was before. */
export const endExercise = async (
  pool: Pool,
  siteId: string,
  report: ExerciseReport,
  at: string,
): Promise<boolean> =>
  (await run(pool, 'UPDATE exercise SET report = ?, ended_at = ? WHERE site_id = ? AND ended_at IS NULL', [
    JSON.stringify(report),
    toSqlTime(at),
    siteId,
  ])) === 1;
