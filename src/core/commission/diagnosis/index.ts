export { type Cause, type Diagnosis, type Landed, type Observed, diagnosing, landings } from './diagnose';
export { placeOfStep } from './place';
