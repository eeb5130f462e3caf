export {
  type Cause,
  type Diagnosis,
  type Landed,
  type Observed,
  diagnosing,
  landings,
  placeOfStep,
} from './diagnosis';
export {
  type BenchBox,
  type BenchView,
  Practice,
  SpokenBench,
  type WireBenchAction,
  laptopTyped,
} from './bench';
export { type KitItem, kitOf, kitParts, kitTitles } from './kit';
export { lostWithoutOrder } from './naive';
export { type CutOff, type OrderEdit, cutOffsIn, edited, followed } from './by-hand';
export { type LaptopSettings, laptopFor } from './laptop';
export type { Entry, Order, Standing } from './entry';
export { orderOf } from './order';
export { socketTitle } from './air-seats';
export { lentText } from './words';
export { reachedFrom } from './reach';
export { type Formers, formersOf } from './formers';
export { type AsItComes, comesOf, presentState } from './present';
export { type Management, type SiteState, plannedState } from './state';
export { type Setting, type SettingKind, type Step, after, settingsOf } from './steps';
export { type SiteTest, type TestPlan, type TestRound, furtherTest, siteTests } from './tests';
export { type Outcome, type Rest, type Result, type RunSheet, outcomes, restAfter, runSheetOf } from './run';
export {
  type WireStep as WireSetting,
  decodeStep as decodeSetting,
  encodeStep as encodeSetting,
  orderEditSchema,
  stepSchema,
} from './wire';
export {
  type SheetSeat,
  type SheetStep,
  type WorkedOrder,
  type Worksheet,
  madeOf,
  sheetOf,
  workedOrder,
  worksheetOf,
} from './worksheet';
export { type Pace, type TimedStep, assumedSeconds, mayTurnBack, timedSteps, wayBackOf } from './times';
export { type WayIn, consoleWords, modelInShort, wayInto, wayWords } from './way-in';
export {
  type PageName,
  type SettingLine,
  type SettingsSheet,
  alsoCalled,
  pageNames,
  pageTitles,
  settingsSheets,
} from './pages';
export {
  type FoundAt,
  type FoundList,
  type FoundRow,
  type FoundVerdict,
  foundAgainst,
  foundVerdicts,
  readFound,
  sourceWords,
} from './found';
