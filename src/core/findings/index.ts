export { FindingsEngine } from './engine';
export { type Check, type Finding, type Severity, type Station, acceptanceOf, severities } from './finding';
