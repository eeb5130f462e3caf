export { trialsFor, trialsNear } from './choice';
export { type Order, type PlantedFault, drawing, fallout, withSteps } from './draw';
export { type FaultKind, type Level, type Spot, levelWords, levels, mostFaults, stepsOf } from './kind';
export { kinds as faultKinds } from './kinds';
export { endDevices, pluggedIn } from './places';
export { type FaultReport, type ExerciseReport, type Telling, reporting } from './report';
export { type ExerciseView, type Kept, endedView, exerciseView, withHint } from './view';
export { type Trial, Readings, readTrial, seenIn, trialKey } from './trials';
