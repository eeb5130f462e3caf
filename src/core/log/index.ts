export {
  type Body,
  type BodyKind,
  type DefectState,
  type LogEntry,
  type NewEntry,
  type SignRole,
  defectStates,
  entryId,
  logEntrySchema,
  newEntrySchema,
  signRoles,
} from './entries';
export {
  type Defect,
  type Log,
  type Of,
  type Run,
  type Visit,
  type Written,
  logOf,
  resultsOf,
  tickKey,
  writtenAt,
} from './fold';
export { type VisitSum, sumOf } from './visit';
export { aboutText, defectWords, entryText, outcomeWords, testWords } from './words';
export { paceOf } from './pace';
export { logCsv } from './table';
export { isOfRun, mayBeAdded } from './of-run';
