export { type Cause, type Diagnosis, diagnosing } from './diagnose';
export { type Landed, landings } from './landings';
export type { Observed } from './made';
export { placeOfStep } from './place';
