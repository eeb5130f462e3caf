import type { Pool } from 'mysql2/promise';
import { type Plan, type Step, type WireStep, decodeStep, equal, recordIn } from '../core/plan';
import { fromSqlTime, toSqlTime } from './columns';
import { type Connection, rows, run, transaction } from './connection';
import { writeSteps } from './rows';

/** The format of the steps in journal rows; older ones are upcast where steps are decoded. */
export const JOURNAL_FORMAT = 1;

export type EntryKind = 'change' | 'undo' | 'redo' | 'back';

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

export interface NewEntry extends EntryHead {
  readonly browser: string | null;
  readonly input: unknown;
  readonly steps: readonly Step[];
  /** The same as JSON. */
  readonly wire: readonly WireStep[];
}

const FIELDS = ['revision', 'seed', 'kind', 'label', 'operation', 'author', 'at', 'undoes'];
const HEAD = FIELDS.join(', ');
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

/** How much of the journal is read at a time: at most so many entries, and no more after so many bytes of steps. */
export interface Part {
  readonly entries: number;
  readonly bytes: number;
}
const PART: Part = { entries: 500, bytes: 4 * 1024 * 1024 };

/** The first part of the entries after a revision, ascending, with their steps; one entry at least, if there is one. */
export async function entriesSince(
  db: Pool | Connection,
  siteId: string,
  revision: number,
  part: Part = PART,
): Promise<Entry[]> {
  const sizes = (await rows(
    db,
    `SELECT revision, LENGTH(steps) FROM journal WHERE site_id = ? AND revision > ? ORDER BY revision LIMIT ${Math.floor(part.entries)}`,
    [siteId, revision],
  )) as [number, number][];
  let bytes = 0;
  const fits = sizes.filter(([, size], i) => (bytes += size) <= part.bytes || i === 0);
  const last = fits.at(-1);
  if (!last) return [];
  const found = await rows(
    db,
    `SELECT ${HEAD}, steps FROM journal WHERE site_id = ? AND revision > ? AND revision <= ? ORDER BY revision`,
    [siteId, revision, last[0]],
  );
  return found.map(entry);
}

/**
 * What was accepted of proposals and is not undone: for each record one step, from how it was before the first of them to how the
 * last one left it. An undo counts unless it is undone itself.
 */
export async function acceptedSteps(db: Pool | Connection, siteId: string): Promise<WireStep[]> {
  const told = (await rows(
    db,
    `SELECT revision, operation, undoes FROM journal
     WHERE site_id = ? AND (operation = 'acceptProposal' OR undoes IS NOT NULL) ORDER BY revision DESC`,
    [siteId],
  )) as [number, string, number | null][];
  const undone = new Set<number>();
  for (const [revision, , undoes] of told) if (undoes !== null && !undone.has(revision)) undone.add(undoes);
  const latest = new Map<string, WireStep>();
  for (const [revision, operation] of told) {
    if (operation !== 'acceptProposal' || undone.has(revision)) continue;
    const [row] = await rows(db, 'SELECT steps FROM journal WHERE site_id = ? AND revision = ?', [
      siteId,
      revision,
    ]);
    for (const step of JSON.parse(row![0] as string) as WireStep[]) {
      const key = `${step.table} ${step.id}`;
      // How it was before any of them tells whether a proposal made it.
      latest.set(key, { ...(latest.get(key) ?? step), before: step.before });
    }
  }
  return [...latest.values()];
}

/** Every entry after a revision, part by part. */
export async function* allEntriesSince(
  db: Pool | Connection,
  siteId: string,
  revision: number,
): AsyncGenerator<Entry> {
  for (let last = revision; ;) {
    const part = await entriesSince(db, siteId, last);
    if (part.length === 0) return;
    yield* part;
    last = part.at(-1)!.revision;
  }
}

/** Heads of the newest entries below a revision, newest first, with the names revisions were given. */
export async function history(pool: Pool, siteId: string, below: number, limit: number) {
  const found = await rows(
    pool,
    `SELECT ${FIELDS.map((name) => `j.${name}`).join(', ')}, n.name FROM journal j
     LEFT JOIN named_revision n ON n.site_id = j.site_id AND n.revision = j.revision
     WHERE j.site_id = ? AND j.revision < ? ORDER BY j.revision DESC LIMIT ${Math.floor(limit)}`,
    [siteId, below],
  );
  return found.map((row) => ({ ...head(row), name: row[8] as string | null }));
}

/**
 * Gives a revision a name; false when there is no such revision. In a transaction with the row of the site, like a change: what
 * is told as saved is on the disk.
 */
export const nameRevision = (
  pool: Pool,
  siteId: string,
  revision: number,
  name: string,
  author: string,
  at: string,
): Promise<boolean> =>
  withSite(pool, siteId, async (connection, newest) => {
    if (newest === null || revision > newest) return false;
    await run(
      connection,
      `INSERT INTO named_revision VALUES (?, ?, ?, ?, ?)
       ON DUPLICATE KEY UPDATE name = VALUES(name), author = VALUES(author), at = VALUES(at)`,
      [siteId, revision, name, author, toSqlTime(at)],
    );
    return true;
  });

/**
 * Runs `work` in a transaction that holds the row of a site: whoever writes to a site goes through here, so that changes come one
 * after the other, whichever process they come from. The revision is null when there is no such site.
 */
export const withSite = <T>(
  pool: Pool,
  siteId: string,
  work: (connection: Connection, revision: number | null) => Promise<T>,
): Promise<T> =>
  transaction(pool, 'READ COMMITTED', async (connection) => {
    const [row] = await rows(connection, 'SELECT revision FROM site WHERE id = ? FOR UPDATE', [siteId]);
    return work(connection, row ? (row[0] as number) : null);
  });

/** An input larger than this is not kept: the steps say what it did. In UTF-16 units. */
const INPUT_KEPT = 65_536;

/** Writes a change as the next revision: the rows, the journal, the site. `withSite` holds the row. */
export async function writeEntry(connection: Connection, siteId: string, made: NewEntry): Promise<void> {
  await writeSteps(connection, siteId, made.steps);
  const at = toSqlTime(made.at);
  const input = JSON.stringify(made.input ?? null);
  await run(
    connection,
    `INSERT INTO journal (site_id, ${HEAD}, input, steps, format, browser)
     VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      siteId,
      made.revision,
      made.seed,
      made.kind,
      made.label,
      made.operation,
      made.author,
      at,
      made.undoes,
      input.length > INPUT_KEPT ? 'null' : input,
      JSON.stringify(made.wire),
      JOURNAL_FORMAT,
      made.browser,
    ],
  );
  await run(connection, 'UPDATE site SET revision = ?, changed_at = ? WHERE id = ?', [
    made.revision,
    at,
    siteId,
  ]);
}

/** The entry of a seed, and whose it is; null when there is none. */
export async function entryOfSeed(
  db: Pool | Connection,
  siteId: string,
  seed: string,
): Promise<(Entry & { readonly browser: string | null }) | null> {
  const [row] = await rows(db, `SELECT ${HEAD}, steps, browser FROM journal WHERE site_id = ? AND seed = ?`, [
    siteId,
    seed,
  ]);
  return row ? { ...entry(row), browser: row[9] as string | null } : null;
}

/** Which of these seeds are saved. */
export async function savedSeeds(
  pool: Pool,
  siteId: string,
  seeds: readonly string[],
): Promise<{ seed: string; revision: number }[]> {
  const saved: { seed: string; revision: number }[] = [];
  for (let at = 0; at < seeds.length; at += 400) {
    const batch = seeds.slice(at, at + 400);
    const found = await rows(
      pool,
      `SELECT seed, revision FROM journal WHERE site_id = ? AND seed IN (${batch.map(() => '?').join(',')})`,
      [siteId, ...batch],
    );
    saved.push(...found.map((row) => ({ seed: row[0] as string, revision: row[1] as number })));
  }
  return saved;
}

/**
 * What undo or redo would revert next, from somebody's entries newest first: an undo takes back the latest change before it that
 * is not taken back, a redo likewise the latest undo, and a change of their own ends what can be redone. Null when there is none.
 */
export class UndoSearch {
  private readonly skip = { undo: 0, redo: 0 };
  private readonly top: { undo?: number; redo?: number | null } = {};

  /** Takes the next older entry. */
  take({ revision, kind }: Pick<EntryHead, 'revision' | 'kind'>): void {
    if (kind === 'undo') {
      this.skip.undo++;
      if (this.top.redo === undefined) {
        if (this.skip.redo > 0) this.skip.redo--;
        else this.top.redo = revision;
      }
      return;
    }
    if (this.top.undo === undefined) {
      if (this.skip.undo > 0) this.skip.undo--;
      else this.top.undo = revision;
    }
    if (this.top.redo !== undefined) return;
    if (kind === 'redo') this.skip.redo++;
    else this.top.redo = null;
  }
  get done(): boolean {
    return this.top.undo !== undefined && this.top.redo !== undefined;
  }
  get found(): { undo: number | null; redo: number | null } {
    return { undo: this.top.undo ?? null, redo: this.top.redo ?? null };
  }
}

/** The entries that undo and redo would revert for a browser; null where there is none. */
export async function undoable(
  pool: Pool,
  siteId: string,
  browser: string,
): Promise<{ undo: Entry | null; redo: Entry | null }> {
  const search = new UndoSearch();
  for (let below = 2 ** 32 - 1; !search.done;) {
    const mine = await rows(
      pool,
      'SELECT revision, kind FROM journal WHERE site_id = ? AND browser = ? AND revision < ? ORDER BY revision DESC LIMIT 200',
      [siteId, browser, below],
    );
    if (mine.length === 0) break;
    for (const row of mine) search.take({ revision: row[0] as number, kind: row[1] as EntryKind });
    below = mine.at(-1)![0] as number;
  }
  const pick = async (revision: number | null) =>
    revision === null
      ? null
      : ((await entriesSince(pool, siteId, revision - 1, { entries: 1, bytes: 0 }))[0] ?? null);
  return { undo: await pick(search.found.undo), redo: await pick(search.found.redo) };
}

/** The steps that lead from a plan back to how it was at an earlier revision. */
export async function stepsBack(
  db: Pool | Connection,
  siteId: string,
  plan: Plan,
  revision: number,
): Promise<Step[]> {
  // What each record was before its first change since; what came after that is in the plan.
  const first = new Map<string, Step>();
  for await (const { steps } of allEntriesSince(db, siteId, revision))
    for (const wire of steps) {
      const key = (step: Pick<Step, 'table' | 'id'>) => `${step.table} ${step.id}`;
      if (first.has(key(wire))) continue;
      // An earlier version may have called the table otherwise.
      const step = decodeStep(wire);
      if (!first.has(key(step))) first.set(key(step), step);
    }
  return [...first.values()].flatMap(({ table, id, before }) => {
    const now = recordIn(plan, table, id) ?? null;
    return equal(now, before) ? [] : [{ table, id, before: now, after: before }];
  });
}
