import type { Pool } from 'mysql2/promise';
import { type Step, netSteps, type WireStep, decodeStep, encodeStep } from '../core/plan';
import { fromSqlTime, toSqlTime } from './columns';
import { type Connection, rows, run, transaction } from './connection';
import { misfits, writeSteps } from './rows';
import { revisionOf } from './sites';

/** The format of the steps in journal rows; older ones would be upcast where rows are read. */
export const JOURNAL_FORMAT = 1;

export type EntryKind = 'change' | 'undo' | 'redo';

export interface EntryHead {
  readonly revision: number;
  readonly seed: string;
  readonly kind: EntryKind;
  readonly label: string;
  readonly operation: string;
  readonly author: string;
  readonly at: string;
  readonly undoes: number | null;
}
/** A journal entry with its steps in wire form. */
export interface Entry extends EntryHead {
  readonly steps: readonly WireStep[];
}

export interface NewChange {
  readonly base: number;
  readonly seed: string;
  readonly kind: EntryKind;
  readonly label: string;
  readonly operation: string;
  readonly input: unknown;
  readonly author: string;
  readonly undoes: number | null;
  readonly steps: readonly Step[];
}

export type Committed =
  | { readonly outcome: 'saved'; readonly revision: number }
  | { readonly outcome: 'stale'; readonly revision: number; readonly between: readonly Entry[] }
  | { readonly outcome: 'misfit'; readonly steps: readonly Step[] }
  | { readonly outcome: 'broken-reference'; readonly message: string }
  | { readonly outcome: 'unknown-site' };

const HEAD = 'revision, seed, kind, label, operation, author, at, undoes';
const head = (row: readonly unknown[]): EntryHead => ({
  revision: row[0] as number,
  seed: row[1] as string,
  kind: row[2] as EntryKind,
  label: row[3] as string,
  operation: row[4] as string,
  author: row[5] as string,
  at: fromSqlTime(row[6] as string),
  undoes: row[7] as number | null,
});
const entry = (row: readonly unknown[]): Entry => ({ ...head(row), steps: JSON.parse(row[8] as string) });

/** Entries after a revision, ascending, with their steps. */
export async function entriesSince(
  db: Pool | Connection,
  siteId: string,
  revision: number,
  limit = 1000,
): Promise<Entry[]> {
  const found = await rows(
    db,
    `SELECT ${HEAD}, steps FROM journal WHERE site_id = ? AND revision > ? ORDER BY revision LIMIT ${Math.floor(limit)}`,
    [siteId, revision],
  );
  return found.map(entry);
}

/** Heads of the newest entries below a revision, newest first, with the names revisions were given. */
export async function history(pool: Pool, siteId: string, below: number, limit: number) {
  const found = await rows(
    pool,
    `SELECT ${HEAD.split(', ')
      .map((name) => `j.${name}`)
      .join(', ')}, n.name FROM journal j
     LEFT JOIN named_revision n ON n.site_id = j.site_id AND n.revision = j.revision
     WHERE j.site_id = ? AND j.revision < ? ORDER BY j.revision DESC LIMIT ${Math.floor(limit)}`,
    [siteId, below],
  );
  return found.map((row) => ({ ...head(row), name: row[8] as string | null }));
}

export async function nameRevision(
  pool: Pool,
  siteId: string,
  revision: number,
  name: string,
  author: string,
  at: string,
): Promise<void> {
  await run(
    pool,
    `INSERT INTO named_revision VALUES (?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE name = VALUES(name), author = VALUES(author), at = VALUES(at)`,
    [siteId, revision, name, author, toSqlTime(at)],
  );
}

/**
 * Commits a change: one transaction that takes the revision, checks every step against the rows, writes them and
 * the journal. A seed that is in the journal already was saved before its answer got lost; the same answer again.
 */
export async function commitChange(
  pool: Pool,
  siteId: string,
  change: NewChange,
  at: string,
): Promise<Committed> {
  try {
    return await transaction(pool, 'READ COMMITTED', async (connection) => {
      const taken = await run(
        connection,
        'UPDATE site SET revision = revision + 1, changed_at = ? WHERE id = ? AND revision = ?',
        [toSqlTime(at), siteId, change.base],
      );
      if (taken === 0) return await explainStale(connection, siteId, change);
      const wrong = await misfits(connection, siteId, change.steps);
      if (wrong.length > 0) throw new Abandon({ outcome: 'misfit', steps: wrong });
      await writeSteps(connection, siteId, change.steps);
      const revision = change.base + 1;
      await run(connection, 'INSERT INTO journal VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)', [
        siteId,
        revision,
        change.seed,
        change.kind,
        change.label.slice(0, 500),
        change.operation,
        JSON.stringify(change.input),
        JSON.stringify(change.steps.map(encodeStep)),
        JOURNAL_FORMAT,
        change.author,
        toSqlTime(at),
        change.undoes,
      ]);
      return { outcome: 'saved', revision };
    });
  } catch (error) {
    if (error instanceof Abandon) return error.answer;
    const { errno, sqlMessage } = error as { errno?: number; sqlMessage?: string };
    // 1451 and 1452: a row something still points at, or a pointer to nothing. 1062: an id or seed that exists.
    if (errno === 1451 || errno === 1452 || errno === 1062)
      return { outcome: 'broken-reference', message: plainSql(sqlMessage ?? '') };
    throw error;
  }
}

class Abandon extends Error {
  constructor(readonly answer: Committed) {
    super('rolled back');
  }
}

const plainSql = (message: string): string =>
  /CONSTRAINT `(\w+)`/.exec(message)?.[1]?.replaceAll('_', ' ') ?? 'identity';

async function explainStale(connection: Connection, siteId: string, change: NewChange): Promise<Committed> {
  const known = await rows(connection, 'SELECT revision FROM journal WHERE site_id = ? AND seed = ?', [
    siteId,
    change.seed,
  ]);
  if (known[0]) return { outcome: 'saved', revision: known[0][0] as number };
  const site = await rows(connection, 'SELECT revision FROM site WHERE id = ?', [siteId]);
  if (!site[0]) return { outcome: 'unknown-site' };
  const between = await entriesSince(connection, siteId, change.base);
  return { outcome: 'stale', revision: site[0][0] as number, between };
}

/**
 * What undo and redo would revert for an author: folds over their entries as a stack. An undo pops the entry it
 * reverts and becomes what redo reverts; a change of their own clears the redo side.
 */
export function undoStacks(mine: readonly Pick<EntryHead, 'revision' | 'kind'>[]): {
  undo: number | null;
  redo: number | null;
} {
  const undo: number[] = [];
  const redo: number[] = [];
  for (const { revision, kind } of mine) {
    if (kind === 'undo') {
      undo.pop();
      redo.push(revision);
    } else if (kind === 'redo') {
      redo.pop();
      undo.push(revision);
    } else {
      undo.push(revision);
      redo.length = 0;
    }
  }
  return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null };
}

/** The entries that undo and redo would revert for an author; null where there is none. */
export async function undoable(
  pool: Pool,
  siteId: string,
  author: string,
): Promise<{ undo: Entry | null; redo: Entry | null }> {
  const mine = await rows(
    pool,
    'SELECT revision, kind FROM journal WHERE site_id = ? AND author = ? ORDER BY revision',
    [siteId, author],
  );
  const stacks = undoStacks(mine.map((row) => ({ revision: row[0] as number, kind: row[1] as EntryKind })));
  const pick = async (revision: number | null) =>
    revision === null ? null : ((await entriesSince(pool, siteId, revision - 1, 1))[0] ?? null);
  return { undo: await pick(stacks.undo), redo: await pick(stacks.redo) };
}

/** The steps that lead from the newest revision back to an earlier one; null when there is no such site. */
export async function stepsBack(
  pool: Pool,
  siteId: string,
  revision: number,
): Promise<{ from: number; steps: WireStep[] } | null> {
  const from = await revisionOf(pool, siteId);
  if (from === null) return null;
  const entries = await entriesSince(pool, siteId, revision, 1_000_000);
  const back = [...entries]
    .reverse()
    .flatMap((item) =>
      [...item.steps]
        .reverse()
        .map((step) => decodeStep({ ...step, before: step.after, after: step.before })),
    );
  return { from, steps: netSteps(back).map(encodeStep) };
}
