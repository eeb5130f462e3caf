export { bindingRows, bindingsCsv } from './bindings';
export { armed, csvText, defused } from './csv';
export {
  type Drawing,
  type Shape,
  channelsDrawing,
  faceDrawing,
  mapDrawing,
  matrixDrawing,
  svgOf,
} from './drawings';
export { MOST_OCTETS, filterRules, octetsOf, prefixesIn } from './filter-rules';
export { formatPage } from './format-page';
export { planFileJsonSchema } from './json-schema';
export { hostapdPort, hostapdRadio } from './hostapd';
export {
  type Label,
  type LabelGrid,
  type LabelKind,
  labelGrids,
  labelKinds,
  labelsOf,
  pageSizes,
  placeOnSheet,
} from './labels';
export { type OpenFile, type Written, madeFiles, openFiles } from './open-files';
export { type PlanTable, cableHead, cableRows, tablesOf } from './tables';
export { dnsmasqConf, hostLabels } from './programs';
export { telephoneOptions } from './telephones';
export { nftRuleset } from './nftables';
export { macAsName, radiusClients, radiusUsers } from './radius';
export { VERSION, readPlanFile, writePlanFile } from './plan-file';
export { type BoxBlock, boxPlace, portScheduleCsv, portScheduleOf } from './port-schedule';
export { ruleCells, ruleHead, ruleScheduleCsv, ruleScheduleOf } from './rule-schedule';
export { type ScheduleBlock, assignmentWords, leaseWords, scheduleCsv, scheduleOf } from './schedule';
