export { type Order, type PlantedFault, drawing, mostFaults } from './draw';
export { type Level, levelWords, levels } from './kind';
export { type FaultReport, type ExerciseReport, type Telling, reporting } from './report';
export { type ExerciseView, type Kept, endedView, exerciseView, withHint } from './view';
export { type Trial, readTrial, trialKey } from './trials';
