export { type BenchBox, type BenchView, Practice, type WireBenchAction, laptopTyped } from './view';
export { SpokenBench } from './spoken';
