import { bookChapters, writeBook } from '../../core/book';
import {
  bindingsCsv,
  labelGrids,
  labelKinds,
  labelsOf,
  portScheduleCsv,
  ruleScheduleCsv,
  scheduleCsv,
  writePlanFile,
} from '../../core/formats';
import { logOf } from '../../core/log';
import { type Plan, badInput, counted, finish, shownValue, siteOf } from '../../core/plan';
import { logSince } from '../../db/log';
import { today } from '../../today';
import { type Holder, type Tell, newest } from '../holder';
import { archiveOf } from './archive';
import { everyFile } from './every-file';
import { arranged } from './map';
import { bookPdf, stepsOfPdf } from './pdf/book/book';
import { type Paper, papers } from './pdf/book/sheet';
import { labelsPdf } from './pdf/labels';

/** Documents made of the newest plan of a site, as they are sent to be saved. */

const sent = (text: string) => new TextEncoder().encode(text);

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
  const found = everyFile(plan, { today: today(), revision }).find((one) => one.path === path);
  if (!found)
    throw badInput(
      `${shownValue(path)} is no file of this site; the archive of all lists them in its manifest.`,
      'path',
    );
  return { bytes: await found.bytes(), siteName: siteOf(plan).name };
}

/** All of them in one archive. */
async function archive(holder: Holder, { site }: { readonly site: string }): Promise<Sent> {
  const { plan, revision } = await newest(holder, site);
  return { bytes: await archiveOf(plan, { today: today(), revision }), siteName: siteOf(plan).name };
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

interface Asked {
  readonly site: string;
  readonly paper: string;
  /** Chapters to leave out, by id. */
  readonly without: readonly string[];
}

/** As many as no log has. */
const WHOLE = 10_000_000;

/** The as-built book. Tells how far it has come, chapter by chapter. */
async function book(holder: Holder, { site, paper, without }: Asked, tell: Tell): Promise<Sent> {
  if (!Object.hasOwn(papers, paper))
    throw badInput(`${shownValue(paper)} is no paper; there are ${Object.keys(papers).join(', ')}.`, 'paper');
  const known = bookChapters.map(({ id }) => id);
  const strange = without.find((id) => !known.includes(id));
  if (strange !== undefined)
    throw badInput(`${shownValue(strange)} is no chapter; there are ${known.join(', ')}.`, 'without');
  const { plan, revision } = await newest(holder, site);
  const log = logOf(await logSince(holder.pool, site, 0, WHOLE));
  const map = without.includes('map') ? null : await arranged(plan);
  const sources = { plan, log, revision, today: today(), map };
  // Written, and then set: about as much work each.
  const all = 2 * known.length + 2;
  const written = finish(counted(writeBook(sources, new Set(without)), all), tell);
  const set = counted(bookPdf(written, paper as Paper), stepsOfPdf(written));
  const bytes = await finish(set, ({ done }) => tell({ done: known.length + done, of: all }));
  return { bytes, siteName: siteOf(plan).name };
}

export const documents = { file, openFile, archive, labels, book };
