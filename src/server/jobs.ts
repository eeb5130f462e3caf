import {
  drawing,
  endedView,
  exerciseView,
  reporting,
  type ExerciseView,
  type Kept,
  type Order,
} from '../core/exercises';
import { asANewSite, fromTemplate, newSitePlan } from '../core/edit';
import { FindingsEngine, type Watch, acceptanceOf } from '../core/findings';
import { readPlanFile } from '../core/formats';
import {
  type Plan,
  SITE_ID,
  applySteps,
  encodePlan,
  encodeStep,
  finish,
  siteOf,
  withRecord,
} from '../core/plan';
import { routes } from '../contract';
import { createExercise, endExercise, exerciseOf } from '../db/exercises';
import { stepsBack } from '../db/journal';
import { type Counts, createSite, keepCounts } from '../db/sites';
import { today } from '../today';
import { readBody } from './bodies';
import { documents } from './documents';
import { type Holder, type Tell, newest } from './holder';
import { Problem, unknownSite } from './problems';
import { type Rehearsed, type RehearseInput, rehearsed } from './rehearse';

/** Work that may take long, on the newest plan of a site. It runs in a thread of its own: see workers.ts. */

/** The plan a site began with. */
const firstPlan = (holder: Holder, site: string): Promise<Plan> => planAt(holder, site, 0, 'at');

/** What of an exercise its solver may see, with its plan as it is now. */
async function viewOf(holder: Holder, site: string, kept: Kept): Promise<ExerciseView> {
  if (kept.report) return endedView(kept, kept.report);
  const { plan } = await newest(holder, site);
  return exerciseView(kept, await firstPlan(holder, site), plan, today());
}

interface Count {
  readonly site: string;
  readonly leftOut: Watch['leftOut'];
  /** Tells each check as it begins. */
  readonly closely: boolean;
}
/** Open findings by severity, kept with the revision and the day they are of. */
async function counts(holder: Holder, { site, leftOut, closely }: Count, tell: Tell): Promise<Counts> {
  const { plan, revision } = await newest(holder, site);
  const found = { stop: 0, fix: 0, note: 0 };
  const begin = (begun: string) => closely && tell({ begun });
  for (const finding of new FindingsEngine(plan, today(), { leftOut, begin }).all())
    if (!acceptanceOf(plan.acceptance, finding)) found[finding.severity]++;
  await keepCounts(holder.pool, site, revision, today(), { counts: found });
  return found;
}

interface Set {
  readonly site: string;
  readonly id: string;
  readonly order: Order;
  readonly learner: string;
  readonly at: string;
}
/** Draws an exercise and stores it as a site of its own. */
async function setExercise(holder: Holder, { site, id, order, learner, at }: Set, tell: Tell): Promise<void> {
  const { plan, revision } = await newest(holder, site);
  const drawn = finish(drawing(plan, order, today()), tell);
  const { name } = siteOf(plan);
  const title = `, exercise ${order.seed}`;
  const copy = withRecord(drawn.plan, 'site', SITE_ID, {
    ...siteOf(drawn.plan),
    name: `${name.slice(0, 80 - title.length)}${title}`,
  });
  await createExercise(holder.pool, id, asANewSite(copy), {
    original: { id: site, name, revision },
    seed: order.seed,
    level: order.level,
    learner,
    faults: drawn.faults,
    startedAt: at,
  });
}

const exercise = async (
  holder: Holder,
  { site }: { readonly site: string },
): Promise<ExerciseView | null> => {
  const kept = await exerciseOf(holder.pool, site);
  return kept && viewOf(holder, site, kept);
};

/** Judges an exercise as its plan is at a revision, and hands it in. */
async function handIn(
  holder: Holder,
  { site, revision, at }: { readonly site: string; readonly revision: number; readonly at: string },
  tell: Tell,
): Promise<ExerciseView> {
  const kept = (await exerciseOf(holder.pool, site))!;
  const { plan, revision: now } = await newest(holder, site);
  if (now !== revision)
    throw new Problem(
      409,
      'Changed meanwhile',
      `You hand in change ${revision}, and the plan is at change ${now}; look at it and hand in again.`,
    );
  const { faults, level, hints } = kept;
  const solved = { start: await firstPlan(holder, site), now: plan, faults, level, hints };
  const report = finish(reporting(solved, today()), tell);
  if (!(await endExercise(holder.pool, site, report, at)))
    throw new Problem(409, 'Handed in already', 'Somebody handed this exercise in at this moment.');
  return viewOf(holder, site, { ...kept, report, endedAt: at });
}

async function rehearse(
  holder: Holder,
  { site, asked }: { readonly site: string; readonly asked: RehearseInput },
  tell: Tell,
): Promise<Rehearsed> {
  const { plan, revision } = await newest(holder, site);
  return { revision, ...rehearsed(plan, asked, tell) };
}

/** A text as it is sent: so it is handed over and not copied, however long it is. */
const sent = (text: string) => new TextEncoder().encode(text);

/** Saves the change that the text of a request asks for; the answer as JSON. */
async function commit(
  { commits }: Holder,
  { site, text, at }: { readonly site: string; readonly text: string; readonly at: string },
): Promise<Uint8Array<ArrayBuffer>> {
  const saved = await commits.save(site, readBody(routes.journal.commit.body!, text), at);
  if (!saved) throw unknownSite(site);
  return sent(JSON.stringify(saved));
}

/** The newest plan, and the steps that lead from it back to how it was at a revision. */
async function ledBack(holder: Holder, site: string, revision: number, path: string) {
  const { revision: from, plan } = await newest(holder, site);
  if (revision > from)
    throw new Problem(422, 'Unknown revision', `There is no change ${revision}; the newest is ${from}.`, {
      path: [path],
    });
  return { from, plan, steps: await stepsBack(holder.pool, site, plan, revision) };
}

/** The steps that lead from the newest plan back to how it was at a revision, as JSON. */
async function back(
  holder: Holder,
  { site, revision }: { readonly site: string; readonly revision: number },
): Promise<Uint8Array<ArrayBuffer>> {
  const { from, steps } = await ledBack(holder, site, revision, 'revision');
  return sent(JSON.stringify({ from, steps: steps.map(encodeStep) }));
}

/** The plan of a site as it was at a revision. */
async function planAt(holder: Holder, site: string, at: number, path: string): Promise<Plan> {
  const { plan, steps } = await ledBack(holder, site, at, path);
  const applied = applySteps(plan, steps);
  if (!applied.ok) throw new Error(`the journal of ${site} does not lead back to change ${at}`);
  return applied.plan;
}

/** The plan of a site with its revision, as JSON: the newest, or as it was at an earlier one. */
async function planText(
  holder: Holder,
  { site, at }: { readonly site: string; readonly at?: number | undefined },
): Promise<Uint8Array<ArrayBuffer>> {
  const { plan, revision } =
    at === undefined
      ? await newest(holder, site)
      : { plan: await planAt(holder, site, at, 'at'), revision: at };
  return sent(JSON.stringify({ revision, plan: encodePlan(plan) }));
}

/** Makes a site as the text of a request says: from a few decisions, as a copy of another, or from a plan file. */
async function makeSite(
  holder: Holder,
  { id, at, text }: { readonly id: string; readonly at: string; readonly text: string },
): Promise<void> {
  const asked = readBody(routes.sites.create.body!, text);
  const make = async (): Promise<Plan> => {
    if ('file' in asked) return readPlanFile(asked.file);
    if ('create' in asked) return newSitePlan(asked.create, id);
    const { duplicate, ...template } = asked;
    const { plan } = await newest(holder, duplicate);
    return fromTemplate(plan, template);
  };
  await createSite(holder.pool, id, asANewSite(await make()), at);
}

export const jobs = {
  commit,
  back,
  counts,
  setExercise,
  exercise,
  handIn,
  rehearse,
  planText,
  ...documents,
  makeSite,
};
export type Jobs = typeof jobs;
export type JobName = keyof Jobs;
export type JobInput<N extends JobName> = Parameters<Jobs[N]>[1];
export type JobResult<N extends JobName> = Awaited<ReturnType<Jobs[N]>>;
