import { type Result, type SettingLine, decodeSetting } from '../commission';
import type { Body, BodyKind, DefectState, LogEntry, SignRole } from './entries';

/** The log as it stands: its entries in the order in which they came in, put together to runs and defects. */

/** An entry as it is looked at; one that was not sent yet has no number. */
export type Written = Omit<LogEntry, 'seq' | 'received' | 'behind'> &
  Partial<Pick<LogEntry, 'seq' | 'received' | 'behind'>>;
export type Of<K extends BodyKind> = Written & { readonly body: Extract<Body, { kind: K }> };

export const is =
  <K extends BodyKind>(kind: K) =>
  (entry: Written): entry is Of<K> =>
    entry.body.kind === kind;

export interface Run {
  readonly id: string;
  readonly begun: Of<'run'>;
  /** What was said of its steps, and where somebody sat down, but for what was taken back. */
  readonly results: readonly (Of<'sit'> | Of<'result'>)[];
  /** How many settings are done. */
  readonly done: number;
  readonly ended: Of<'runEnd'> | null;
}

export interface Defect {
  readonly id: string;
  readonly opened: Of<'defect'>;
  readonly state: DefectState;
  /** What was said of it since, oldest first. */
  readonly since: readonly Of<'defectState'>[];
}

/** A time on site, with what was written while it lasted. */
export interface Visit {
  readonly id: string;
  readonly begun: Of<'visit'>;
  readonly ended: Of<'visitEnd'> | null;
  readonly entries: readonly Written[];
}

export interface Log {
  readonly entries: readonly Written[];
  readonly visits: readonly Visit[];
  /** Who said last that a line of the settings of a box is done, or is not, by `tickKey`. */
  readonly ticks: ReadonlyMap<string, Of<'tick'>>;
  readonly runs: readonly Run[];
  readonly defects: readonly Defect[];
  /** What came of each test last, by its key. */
  readonly tests: ReadonlyMap<string, Of<'test'>>;
  /** Who stands for what was built, oldest first. */
  readonly signOffs: readonly Of<'signOff'>[];
  /** The revision that both signed last; null while none is. */
  readonly asBuilt: number | null;
  /** What took an entry back, by its id. */
  readonly corrections: ReadonlyMap<string, Of<'correction'>>;
}

/** A line of the settings of a box. What it says is part of it: said anew, it is to be done anew. */
export const tickKey = (device: string, page: string, { what, value }: SettingLine): string =>
  [device, page, what, value].join('\n');

/** When something was written, in UTC: by the clock of the device, put right by how far it was behind when it was sent. */
export const writtenAt = ({ at, behind = 0 }: Written): string =>
  new Date(Date.parse(at) + behind).toISOString();

/** Installer and customer sign for one revision, in either order. */
function asBuiltIn(signOffs: readonly Of<'signOff'>[]): number | null {
  const signed = (role: SignRole) =>
    new Set(signOffs.filter(({ body }) => body.role === role).map(({ revision }) => revision));
  const [installer, customer] = [signed('installer'), signed('customer')];
  return (
    signOffs.findLast(({ revision }) => installer.has(revision) && customer.has(revision))?.revision ?? null
  );
}

/** What was written between the beginning and the end of each visit, by the time it was written. */
function visitsIn(stands: readonly Written[]): Visit[] {
  const ended = new Map(stands.filter(is('visitEnd')).map((entry) => [entry.body.visit, entry]));
  return stands.filter(is('visit')).map((begun): Visit => {
    const end = ended.get(begun.id) ?? null;
    const [from, until] = [writtenAt(begun), end && writtenAt(end)];
    const entries = stands.filter((entry) => {
      const at = writtenAt(entry);
      return entry.id !== begun.id && entry.id !== end?.id && at >= from && (until === null || at <= until);
    });
    return { id: begun.id, begun, ended: end, entries };
  });
}

/** Puts a log together. What comes for a run or a defect that is not there is kept among the entries only. */
export function logOf(entries: readonly Written[]): Log {
  const corrections = new Map<string, Of<'correction'>>();
  for (const entry of entries)
    if (is('correction')(entry) && !corrections.has(entry.body.of)) corrections.set(entry.body.of, entry);
  const stands = entries.filter(({ id }) => !corrections.has(id));
  const ended = new Map(stands.filter(is('runEnd')).map((entry) => [entry.body.run, entry]));
  const runs = stands.filter(is('run')).map((begun): Run => {
    const own = (entry: Written): entry is Of<'sit'> | Of<'result'> =>
      (is('sit')(entry) || is('result')(entry)) && entry.body.run === begun.id;
    const results = stands.filter(own);
    const done = results.flatMap(({ body }) =>
      body.kind === 'result' && body.outcome === 'done' ? body.steps : [],
    ).length;
    return { id: begun.id, begun, results, done, ended: ended.get(begun.id) ?? null };
  });
  const defects = stands.filter(is('defect')).map((opened): Defect => {
    const since = stands.filter(is('defectState')).filter(({ body }) => body.defect === opened.id);
    return { id: opened.id, opened, since, state: since.at(-1)?.body.state ?? 'open' };
  });
  const signOffs = stands.filter(is('signOff'));
  const ticks = new Map<string, Of<'tick'>>();
  for (const entry of stands.filter(is('tick')))
    for (const line of entry.body.lines) ticks.set(tickKey(entry.body.device, entry.body.page, line), entry);
  const tests = new Map(stands.filter(is('test')).map((entry) => [entry.body.key, entry]));
  const visits = visitsIn(stands);
  return {
    entries,
    visits,
    ticks,
    runs,
    defects,
    tests,
    signOffs,
    asBuilt: asBuiltIn(signOffs),
    corrections,
  };
}

/** What was said of the steps of a run, one by one. */
export const resultsOf = (results: Run['results']): Result[] =>
  results.flatMap(({ body }): Result[] =>
    body.kind === 'sit'
      ? [{ kind: 'sit', socket: body.socket }]
      : body.steps.map((step) => ({
          kind: 'step',
          step: decodeSetting(step),
          outcome: body.outcome,
        })),
  );
