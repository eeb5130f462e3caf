export { type BenchBox, type BenchView, Practice, type WireBenchAction } from './view';
