import fc from 'fast-check';
import { FindingsEngine } from '@/core/findings';
import { perform } from '@/core/edit';
import { type Plan, Refusal, type Step, applyChange, encodePlan } from '@/core/plan';
import { deviceNamed } from '@/core/testing/gear';
import { takenCall } from '@/core/testing/inputs';
import { withEveryKind } from '@/core/testing/kinds';
import { runs } from '@/core/testing/runs';
import { soundPolicy } from '@/core/testing/policy';
import { today } from '@/today';
import type { FromWorker, ToWorker } from '@/worker/protocol';
import type { Findings, JobEars } from './worker-client';

/** As between threads; what structuredClone makes here would be of another realm. */
function copied<T>(value: T): T {
  if (Array.isArray(value)) return value.map(copied) as T;
  if (value instanceof Map) return new Map([...value].map(copied)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, held]) => [key, copied(held)])) as T;
}

/** The real worker in this very process: what either side says is copied, as between threads. */
class InProcess {
  static last: InProcess;
  onmessage: ((event: { data: FromWorker }) => void) | null = null;
  onerror: ((event: { message: string; preventDefault(): void }) => void) | null = null;
  terminated = false;
  constructor() {
    InProcess.last = this;
    Object.assign(globalThis, {
      onmessage: null,
      postMessage: (data: FromWorker) => this.onmessage?.({ data: copied(data) }),
    });
    jest.requireActual('@/worker/site.worker');
  }
  postMessage(data: ToWorker) {
    (globalThis as unknown as { onmessage(event: { data: ToWorker }): void }).onmessage({
      data: copied(data),
    });
  }
  terminate() {
    this.terminated = true;
  }
}
Object.assign(globalThis, { Worker: InProcess });
const { WorkerClient } = jest.requireActual<typeof import('./worker-client')>('./worker-client');

const text = (plan: Plan) => JSON.stringify({ plan: encodePlan(plan) });
const watching = { leftOut: new Map<string, string>(), closely: false };

const told: { findings: Findings; sequence: number }[] = [];
const failures: string[] = [];
const begun: string[] = [];
const client = new WorkerClient({
  onChange: (findings, sequence) => told.push({ findings, sequence }),
  onFailed: (why) => failures.push(why),
  onBegun: (subject) => begun.push(subject),
});
const worker = InProcess.last;
const seen = () => [...told.at(-1)!.findings].sort(([a], [b]) => (a < b ? -1 : 1));
const fromNothing = (plan: Plan) =>
  new FindingsEngine(plan, today())
    .all()
    .map((finding) => [finding.key, finding] as const)
    .sort(([a], [b]) => (a < b ? -1 : 1));

/** What an operation taken at random does to a plan; null where it does nothing. */
function stepsAt(plan: Plan, seed: number): { plan: Plan; steps: readonly Step[] } | null {
  const call = takenCall(plan, seed);
  if (!call) return null;
  try {
    const change = perform(plan, call, `w${seed}x`);
    const applied = applyChange(plan, change);
    return applied.ok ? { plan: applied.plan, steps: change.steps } : null;
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}

test('what the page has of the findings is what there is, after any steps', () => {
  let followed = 0;
  fc.assert(
    fc.property(fc.nat(), fc.array(fc.nat(1_000_000), { minLength: 1, maxLength: 6 }), (seed, seeds) => {
      let plan = withEveryKind(soundPolicy(), seed % 5);
      client.load(text(plan), [], watching);
      expect(told.at(-1)!.sequence).toBe(0);
      expect(seen()).toEqual(fromNothing(plan));
      for (const one of seeds) {
        const next = stepsAt(plan, one);
        if (!next) continue;
        plan = next.plan;
        expect(client.advance(next.steps)).toBe(told.at(-1)!.sequence);
        followed++;
      }
      expect(seen()).toEqual(fromNothing(plan));
    }),
    { numRuns: runs(12) },
  );
  expect(followed).toBeGreaterThan(10);
});

test('steps that came after the text are taken with it', () => {
  const before = soundPolicy();
  const { plan, steps } = [1, 2, 3, 4, 5, 6, 7, 8].flatMap((seed) => stepsAt(before, seed) ?? [])[0]!;
  client.load(text(before), steps, watching);
  expect(seen()).toEqual(fromNothing(plan));
});

test('a check is told as it is begun where that is asked for, and what is left out is said', () => {
  const plan = soundPolicy();
  begun.length = 0;
  client.load(text(plan), [], watching);
  expect(begun).toEqual([]);
  client.load(text(plan), [], { leftOut: new Map(), closely: true });
  expect(begun.length).toBeGreaterThan(100);
  const [subject] = begun;
  client.load(text(plan), [], { leftOut: new Map([[subject!, 'it took too long']]), closely: false });
  expect(seen().filter(([, { because }]) => because.includes('it took too long'))).toHaveLength(1);
});

describe('a job', () => {
  const plan = soundPolicy();
  const heard: string[] = [];
  const ears = (name: string): JobEars => ({
    onProgress: (done, of) => heard.push(`${name} ${done <= of ? 'under way' : 'beyond its end'}`),
    onResult: ({ kind }) => heard.push(`${name}: ${kind}`),
    onCalledOff: () => heard.push(`${name} called off`),
    onProblem: (why) => heard.push(`${name}: ${why}`),
  });
  const fault = { kind: 'taken', device: deviceNamed(plan, 'cam-1').id } as const;
  beforeEach(() => {
    heard.length = 0;
    client.load(text(plan), [], watching);
  });

  test('answers whoever asked', () => {
    client.run({ kind: 'what-if', faults: [fault] }, [], ears('outage'));
    expect(heard).toEqual(['outage: what-if']);
  });
  test('that is overtaken is called off, and says nothing any more', () => {
    client.run({ kind: 'tests' }, [], ears('tests'));
    const { onmessage } = worker;
    // The answer of this one stays on its way.
    const late: FromWorker[] = [];
    worker.onmessage = ({ data }) => late.push(data);
    client.run({ kind: 'tests' }, [], ears('slow'));
    worker.onmessage = onmessage;
    client.run({ kind: 'what-if', faults: [fault] }, [], ears('outage'));
    for (const data of late) worker.onmessage!({ data });
    expect(heard).toEqual(['tests: tests', 'slow called off', 'outage: what-if']);
  });
  test('that was called off by its asker is not heard, and nobody is told twice', () => {
    const { onmessage } = worker;
    const late: FromWorker[] = [];
    worker.onmessage = ({ data }) => late.push(data);
    client.run({ kind: 'tests' }, [], ears('slow'));
    worker.onmessage = onmessage;
    client.cancel();
    for (const data of late) worker.onmessage!({ data });
    client.run({ kind: 'what-if', faults: [fault] }, [], ears('outage'));
    expect(heard).toEqual(['outage: what-if']);
  });
});

test('a worker that cannot go on says why', () => {
  const event = { message: '', preventDefault: jest.fn() };
  worker.onerror!(event);
  worker.onerror!({ ...event, message: 'out of memory' });
  expect(failures).toEqual(['its program could not be loaded', 'out of memory']);
  expect(event.preventDefault).toHaveBeenCalledTimes(2);
});

test('a client that is closed ends its worker, and calls off what it works at', () => {
  const { onmessage } = worker;
  worker.onmessage = null;
  const off = jest.fn();
  client.run({ kind: 'tests' }, [], {
    onProgress: off,
    onResult: off,
    onProblem: off,
    onCalledOff: () => off('called off'),
  });
  worker.onmessage = onmessage;
  client.close();
  client.close();
  expect(off.mock.calls).toEqual([['called off']]);
  expect(worker.terminated).toBe(true);
});
