export { FindingsEngine } from './engine';
export type { Watch } from './left-out';
export { type Check, type Finding, type Severity, type Station, acceptanceOf, severities } from './finding';
