import type { Pool } from 'mysql2/promise';
import type { ChangeBody } from '../contract';
import { perform } from '../core/edit';
import {
  type Change,
  type Plan,
  Refusal,
  applySteps,
  decodeStep,
  digestOf,
  encodeStep,
  invertSteps,
  withStepsTaken,
} from '../core/plan';
import { isConflictOfRows } from '../db/connection';
import type { Connection } from '../db/connection';
import {
  type Entry,
  type NewEntry,
  entriesSince,
  entryOfSeed,
  stepsBack,
  withSite,
  writeEntry,
} from '../db/journal';
import type { Plans } from './plans';
import { Turns } from './turns';

/** What came between and the change itself; the steps of its own are null where the client worked out the same. */
export interface Saved {
  readonly revision: number | null;
  readonly entries: readonly (Omit<Entry, 'steps'> & { readonly steps: Entry['steps'] | null })[];
  readonly more: boolean;
}

/** Why a change is not saved although its operation would: somebody else was first. */
export class Overtaken extends Error {}

/** The plan in memory is not what the rows hold. */
class Differs extends Error {}

/**
 * Saves what an operation makes of the newest plan. The client sends the operation, never steps: what is saved is what the core
 * says. Changes to a site come one after the other, in this process by turns and between processes by the lock on the site's row.
 */
export class Commits {
  private readonly turns = new Turns();

  constructor(
    private readonly pool: Pool,
    private readonly plans: Plans,
  ) {}

  /** Null when there is no such site. Throws a Refusal of the operation, or Overtaken. */
  save(siteId: string, body: ChangeBody, at: string): Promise<Saved | null> {
    return this.turns.take(siteId, async () => {
      try {
        return await this.once(siteId, body, at);
      } catch (error) {
        if (!(error instanceof Differs) && !isConflictOfRows(error)) throw error;
        // Read anew, the plan is what the rows hold; the second try tells the truth.
        this.plans.forget(siteId);
        return this.once(siteId, body, at);
      }
    });
  }

  private async once(siteId: string, body: ChangeBody, at: string): Promise<Saved | null> {
    const after = await withSite(this.pool, siteId, async (connection, newest) => {
      if (newest === null) return null;
      const known = await entryOfSeed(connection, siteId, body.seed);
      if (known) return { saved: await told(connection, siteId, body, known.revision, null) };
      const plan = await this.plans.at(connection, siteId, newest);
      const { change, undoes } = await changeOf(connection, siteId, plan, body);
      if (change.steps.length === 0)
        return { saved: await told(connection, siteId, body, newest, null, null) };
      const wire = change.steps.map(encodeStep);
      const digest = digestOf(wire);
      if (body.reviewed && digest !== body.digest)
        throw new Overtaken(
          'The plan changed since you reviewed this, and the result would differ now. Look at it again.',
        );
      const applied = applySteps(plan, change.steps);
      if (!applied.ok) throw new Differs(`${siteId} does not hold what its operation says`);
      const revision = newest + 1;
      const made: NewEntry = {
        revision,
        seed: body.seed,
        kind: body.kind,
        label: change.label,
        operation: body.kind === 'change' ? body.operation : 'takeSteps',
        input: body.kind === 'change' ? body.input : null,
        author: body.author,
        browser: body.browser,
        at,
        undoes,
        steps: change.steps,
        wire,
      };
      await writeEntry(connection, siteId, made);
      return {
        saved: await told(connection, siteId, body, revision, digest),
        held: { revision, plan: applied.plan },
      };
    });
    // Only now is it on the disk.
    if (after?.held) this.plans.keep(siteId, after.held);
    return after && after.saved;
  }
}

/** What a client does not hold yet up to a revision, which is what its own change was saved as. */
async function told(
  connection: Connection,
  siteId: string,
  body: ChangeBody,
  upTo: number,
  digest: string | null,
  revision: number | null = upTo,
): Promise<Saved> {
  if (body.base >= upTo) return { revision, entries: [], more: false };
  const found = (await entriesSince(connection, siteId, body.base)).filter((item) => item.revision <= upTo);
  const entries = found.map((item) =>
    item.seed === body.seed && digest === body.digest ? { ...item, steps: null } : item,
  );
  return { revision, entries, more: found.at(-1)?.revision !== upTo };
}

interface Made {
  readonly change: Change;
  /** The revision that is undone or redone. */
  readonly undoes: number | null;
}

async function changeOf(connection: Connection, siteId: string, plan: Plan, body: ChangeBody): Promise<Made> {
  const { kind, seed } = body;
  if (kind === 'change') {
    if (body.operation === 'takeSteps')
      throw new Refusal(
        'bad-input',
        'Steps are not taken from outside; send the operation itself.',
        [],
        ['operation'],
      );
    return { change: perform(plan, { operation: body.operation, input: body.input }, seed), undoes: null };
  }
  if (kind === 'back') {
    const steps = await stepsBack(connection, siteId, plan, body.to);
    return { change: withStepsTaken(plan, `Back to change ${body.to}`, steps), undoes: null };
  }
  const target = await entryOfSeed(connection, siteId, body.undoes);
  if (!target || target.browser !== body.browser || (kind === 'redo') !== (target.kind === 'undo'))
    throw new Refusal('missing', `There is no change “${body.undoes}” of yours to ${kind}.`, [], ['undoes']);
  const label = `${kind === 'undo' ? 'Undo' : 'Redo'}: ${target.label.replace(/^(Undo|Redo): /, '')}`;
  return {
    change: withStepsTaken(plan, label, invertSteps(target.steps.map(decodeStep))),
    undoes: target.revision,
  };
}
