export { bindingRows, bindingsCsv } from './bindings';
export { formatPage } from './format-page';
export { planFileJsonSchema } from './json-schema';
export { nftRuleset } from './nftables';
export { VERSION, readPlanFile, writePlanFile } from './plan-file';
export { type BoxBlock, boxPlace, portScheduleCsv, portScheduleOf } from './port-schedule';
export { ruleCells, ruleHead, ruleScheduleCsv, ruleScheduleOf } from './rule-schedule';
export { dnsText, leaseWords, scheduleCsv, scheduleOf } from './schedule';
