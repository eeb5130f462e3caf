/**
 * The whole public surface of the core for scripts, the command line and other programs. Given a plan it computes; it knows no
 * database, clock, network or randomness: ids, times and the day come in as arguments.
 */

/** A plan from a file, and back. Reading throws a Refusal that names the place and the reason. */
export { VERSION, planFileJsonSchema, readPlanFile, writePlanFile } from './formats';
/** The document: records by kind, changes made of steps, and what is said of each kind. */
export {
  type Change,
  type Plan,
  type Step,
  type TableName,
  Refusal,
  applyChange,
  describeChange,
  invertSteps,
  kinds,
  removeRecord,
  siteOf,
  tableNames,
} from './plan';
/** Everything a user can do, by name: `perform(plan, { operation, input }, seed)` gives a Change or throws a Refusal. */
export { newSiteInput, newSitePlan, operations, perform } from './edit';
/** What is wrong and what mends it: `new FindingsEngine(plan, today)`, `all()`, `advance(next)`. */
export { type Finding, type Severity, FindingsEngine, acceptanceOf } from './findings';
/** The rehearsed network: questions, leases, the matrix, what if, all single faults. */
export {
  type Answer,
  type Fault,
  type Impact,
  type Pair,
  type ProbeQuestion,
  discover,
  probe,
  singleFaults,
  whatIf,
  wholeMatrix,
} from './rehearse';
/** Spanning trees and rings, and where each VLAN gets to. */
export { treesOf } from './model/tree';
export { islandsOf } from './model/switching';
/** What is taken away: schedules, rulesets. */
export { bindingsCsv, nftRuleset, portScheduleCsv, ruleScheduleCsv, scheduleCsv } from './formats';
