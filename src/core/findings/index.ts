export { FindingsEngine } from './engine';
export { LIMIT_OF_ONE, MOST_LEFT_OUT, type Watch } from './left-out';
export { type Check, type Finding, type Severity, type Station, acceptanceOf, severities } from './finding';
