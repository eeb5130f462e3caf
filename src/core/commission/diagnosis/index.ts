export { type Cause, type Diagnosis, type Observed, diagnosing } from './diagnose';
export { type Landed, landings } from './landings';
export { placeOfStep } from './place';
