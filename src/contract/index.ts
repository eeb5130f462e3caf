import { files, machine } from './files';
import { journal } from './journal';
import { rehearsal } from './rehearsal';
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
export { sentFile } from './files';
export { type ChangeBody, ENTRIES_BYTES, ENTRIES_PART } from './journal';
export { SITES_PART, type SiteSummary } from './sites';
export { type Entry, type ProblemDetails, problem } from './shapes';

/** What every page asks for; the log has its own file, as most pages never do. */
export const routes = { sites, journal, rehearsal, files, machine };
