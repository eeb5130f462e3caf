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
import {
  labelGrids,
  labelKinds,
  labelsOf,
  openFiles,
  portScheduleCsv,
  readPlanFile,
  bindingsCsv,
  ruleScheduleCsv,
  scheduleCsv,
  writePlanFile,
} from '../core/formats';
import {
  type Plan,
  type Progress,
  SITE_ID,
  applySteps,
  badInput,
  encodePlan,
  encodeStep,
  finish,
  shownValue,
  siteOf,
  withRecord,
} from '../core/plan';
import type { Pool } from 'mysql2/promise';
import { routes } from '../contract';
import { createExercise, endExercise, exerciseOf } from '../db/exercises';
import { stepsBack } from '../db/journal';
import { type Counts, createSite, keepCounts } from '../db/sites';
import { today } from '../today';
import { archiveOf } from './archive';
import { readBody } from './bodies';
import type { Commits } from './commit';
import { labelsPdf } from './pdf/labels';
import type { Held, Plans } from './plans';
import { Problem, unknownSite } from './problems';
import { type Rehearsed, type RehearseInput, rehearsed } from './rehearse';

/** Work that may take long, on the newest plan of a site. It runs in a thread of its own: see workers.ts. */

/** What a thread works with. */
interface Holder {
  readonly pool: Pool;
  readonly plans: Plans;
  readonly commits: Commits;
}

/** What a job tells on its way: how far it has come, or which check it begins. */
export type Told = Progress | { readonly begun: string };
type Tell = (told: Told) => void;

async function newest({ plans }: Holder, site: string): Promise<Held> {
  const found = await plans.newest(site);
  if (!found) throw unknownSite(site);
  return found;
}

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

const files = {
  plan: writePlanFile,
  addresses: scheduleCsv,
  bindings: bindingsCsv,
  ports: portScheduleCsv,
  rules: (plan: Plan) => ruleScheduleCsv(plan, today()),
} satisfies Record<string, (plan: Plan) => string>;
export type FileName = keyof typeof files;

/** What is sent to be saved, and what the site is called. */
interface Sent {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly siteName: string;
}

/** A file made of the plan. */
async function file(
  holder: Holder,
  { site, name }: { readonly site: string; readonly name: FileName },
): Promise<Sent> {
  const { plan } = await newest(holder, site);
  return { bytes: sent(files[name](plan)), siteName: siteOf(plan).name };
}

/** One of the files that other programs read. */
async function openFile(
  holder: Holder,
  { site, path }: { readonly site: string; readonly path: string },
): Promise<Sent> {
  const { plan, revision } = await newest(holder, site);
  const found = openFiles(plan).find((one) => one.path === path);
  if (!found)
    throw badInput(
      `${shownValue(path)} is no file of this site; the archive of all lists them in its manifest.`,
      'path',
    );
  return { bytes: sent(found.text({ today: today(), revision })), siteName: siteOf(plan).name };
}

/** All of them in one archive. */
async function archive(holder: Holder, { site }: { readonly site: string }): Promise<Sent> {
  const { plan, revision } = await newest(holder, site);
  return { bytes: archiveOf(plan, { today: today(), revision }), siteName: siteOf(plan).name };
}

interface Labels {
  readonly site: string;
  readonly what: string;
  readonly grid: string;
  readonly device: string | null;
  readonly skip: number;
  readonly base: string;
}
/** Sheets of labels. */
async function labels(
  holder: Holder,
  { site, what: asked, grid: id, device, skip, base }: Labels,
): Promise<Sent> {
  const { plan } = await newest(holder, site);
  const grid = labelGrids.find((one) => one.id === id);
  const what = labelKinds.find((one) => one === asked);
  if (!grid || !what) {
    const known = grid ? labelKinds : labelGrids.map((one) => one.id);
    throw badInput(
      `${shownValue(grid ? asked : id)} is not known; there are ${known.join(', ')}.`,
      grid ? 'what' : 'grid',
    );
  }
  const all = labelsOf(plan, what, device);
  if (all.length === 0) throw badInput(`There are no ${what} to label here.`, 'what');
  if (skip >= grid.columns * grid.rows)
    throw badInput(
      `A sheet has ${grid.columns * grid.rows} labels, and ${skip} are said to be gone; write a smaller number.`,
      'skip',
    );
  const { name } = siteOf(plan);
  const bytes = await labelsPdf(all, grid, skip, `${base}/site/${site}`, `${name}: labels for ${what}`);
  return { bytes, siteName: name };
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
  file,
  openFile,
  archive,
  labels,
  makeSite,
};
export type Jobs = typeof jobs;
export type JobName = keyof Jobs;
export type JobInput<N extends JobName> = Parameters<Jobs[N]>[1];
export type JobResult<N extends JobName> = Awaited<ReturnType<Jobs[N]>>;
