import { today } from '@/today';
import { FindingsEngine } from '@/core/findings';
import { type Step, applySteps, type Plan, decodePlan } from '@/core/plan';
import { Jobs } from './jobs';
import type { FromWorker, ToWorker } from './protocol';

/** Findings and long work off the main thread: follows the page's steps and sends back only what changed. */
let plan: Plan | null = null;
let engine: FindingsEngine | null = null;
const say = (message: FromWorker) => postMessage(message);
const jobs = new Jobs(say);

onmessage = ({ data }: MessageEvent<ToWorker>) => {
  if (data.type === 'load') {
    plan = advanced(decodePlan(JSON.parse(data.plan).plan), data.steps);
    let { closely } = data;
    const begin = (subject: string) => closely && say({ type: 'begun', subject });
    engine = new FindingsEngine(plan, today(), { leftOut: data.leftOut, begin });
    closely = false;
    say({ type: 'all', findings: engine.all() });
  } else if (data.type === 'cancel') jobs.cancel();
  else if (data.type === 'run') {
    if (plan) jobs.run(plan, today(), data);
  } else if (data.type === 'advance' && plan && engine) {
    plan = advanced(plan, data.steps);
    say({ type: 'diff', sequence: data.sequence, ...engine.advance(plan) });
  }
};

function advanced(from: Plan, steps: readonly Step[]): Plan {
  const applied = applySteps(from, steps);
  if (!applied.ok)
    throw new Error(`the worker's plan differs at ${applied.failed.table} ${applied.failed.id}`);
  return applied.plan;
}
