export { type LabFile, labFiles } from './archive';
export { openEnd } from './boxes';
export { laidPlan, laidWithQuestions } from './lay';
export { INTERNET, type LaidHost, type LaidPlan, kernelSettings } from './site';
export { trafficOf, unlaid } from './wires';
