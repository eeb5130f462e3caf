import { type Work, siteOf, vlansOf } from '../plan';
import type { Block, Cell } from './blocks';
import { type ChapterKind, type Sources, jacketOf } from './chapter';
import { cables, ports } from './chapters/boxes';
import { cautions } from './chapters/cautions';
import { defects } from './chapters/defects';
import { guards } from './chapters/guards';
import { internet } from './chapters/internet';
import { map } from './chapters/map';
import { plain } from './chapters/plain';
import { policy } from './chapters/policy';
import { secrets } from './chapters/secrets';
import { addresses, segments } from './chapters/segments';
import { tests } from './chapters/tests';
import { trees } from './chapters/trees';
import { when } from './chapters/when';
import { wireless } from './chapters/wireless';

/** The as-built book: what a site is, written from its plan and its log, for whoever has to live with it. */

/** In the order in which they stand. */
const kinds: readonly ChapterKind[] = [
  plain,
  map,
  segments,
  addresses,
  ports,
  cables,
  wireless,
  internet,
  policy,
  guards,
  trees,
  tests,
  defects,
  when,
  cautions,
  secrets,
];
/** The chapters there are, whether or not a site has anything to say in them. */
export const bookChapters: readonly { readonly id: string; readonly title: string }[] = kinds.map(
  ({ id, title }) => ({ id, title }),
);

export interface Chapter {
  readonly id: string;
  readonly title: string;
  readonly blocks: readonly Block[];
}
export interface Book {
  readonly site: string;
  /** Home, office or industrial. */
  readonly kind: string;
  /** What the plan stands for at this revision. */
  readonly state: string;
  readonly revision: number;
  readonly today: string;
  /** Who signed this revision. */
  readonly signed: readonly string[];
  /** Each segment as its jacket says it. */
  readonly segments: readonly Exclude<Cell, string>[];
  readonly chapters: readonly Chapter[];
}

/** Is what the book says what stands there? Only where both signed this very revision. */
function stateOf({ log: { asBuilt }, revision }: Sources): string {
  if (asBuilt === revision) return 'As built';
  return asBuilt === null ? 'As planned' : `As planned; as built at change ${asBuilt}`;
}

/** The book without the chapters that are left out. Yields after each chapter. */
export function* writeBook(sources: Sources, leftOut: ReadonlySet<string> = new Set()): Work<Book> {
  const { plan, log, revision, today } = sources;
  const chapters: Chapter[] = [];
  for (const { id, title, write } of kinds) {
    const blocks = leftOut.has(id) ? [] : write(sources);
    if (blocks.length > 0) chapters.push({ id, title, blocks });
    yield;
  }
  const { name, kind } = siteOf(plan);
  return {
    site: name,
    kind,
    state: stateOf(sources),
    revision,
    today,
    segments: vlansOf(plan).map(jacketOf),
    signed: log.signOffs
      .filter((entry) => entry.revision === revision)
      .map(({ body }) => `${body.name}, ${body.role}, ${body.day}`),
    chapters,
  };
}
