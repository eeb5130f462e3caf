import { files, machine } from './files';
import { journal } from './journal';
import { log } from './log';
import { rehearsal } from './rehearsal';
import type { Route } from './route';
import { sites } from './sites';

export {
  type AnswerOf,
  type BodyOf,
  BODY_LIMIT,
  CHANGE_LIMIT,
  FILE_LIMIT,
  LINES,
  type Line,
  MEGABYTE,
  type Method,
  type Other,
  type QueryOf,
  type Route,
  line,
} from './route';
export { type ChangeBody, ENTRIES_BYTES, ENTRIES_PART } from './journal';
export { LOG_PART } from './log';
export { SITES_PART, type SiteSummary } from './sites';
export { type Entry, type ProblemDetails, problem } from './shapes';

export const routes = { sites, journal, log, rehearsal, files, machine };
/** Every route there is. */
export const allRoutes: readonly Route[] = Object.values(routes).flatMap(
  (group) => Object.values(group) as readonly Route[],
);
