import { createStore } from 'zustand/vanilla';
import { planOf } from '@/core/plan';
import { FindingsFollower } from './findings-follower';
import type { SiteState } from './state';
import type { WorkerEars } from './worker-client';

/** Workers that say nothing by themselves, so that the test says it for them. */
const mockMade: MockWorker[] = [];
interface MockWorker {
  readonly ears: WorkerEars;
  closed: boolean;
  loaded: {
    readonly leftOut: ReadonlyMap<string, string>;
    readonly closely: boolean;
    readonly steps: number;
  };
}
jest.mock('./worker-client', () => ({
  WorkerClient: class {
    closed = false;
    loaded: unknown = null;
    constructor(readonly ears: WorkerEars) {
      mockMade.push(this as unknown as MockWorker);
    }
    load(_text: string, steps: readonly unknown[], watching: object) {
      this.loaded = { ...watching, steps: steps.length };
    }
    advance() {
      return 1;
    }
    close() {
      this.closed = true;
    }
  },
}));

const last = () => mockMade.at(-1)!;
function followed() {
  const store = createStore<SiteState>(
    () => ({ findings: new Map(), plan: planOf({}), findingsFailed: '' }) as unknown as SiteState,
  );
  const follower = new FindingsFollower(store);
  follower.load('{}', []);
  return {
    follower,
    failed: () => store.getState().findingsFailed,
    ready: () => store.getState().findingsReady,
  };
}
beforeEach(() => {
  mockMade.length = 0;
  jest.useFakeTimers();
});
afterEach(() => jest.useRealTimers());

test('findings that come in time are not watched', () => {
  const { ready } = followed();
  jest.advanceTimersByTime(20_000);
  last().ears.onChange(new Map(), 0);
  jest.advanceTimersByTime(600_000);
  expect(mockMade).toHaveLength(1);
  expect(ready()).toBe(true);
});

test('a check that never ends is found and left out, with the steps that came meanwhile', () => {
  const { follower, ready, failed } = followed();
  follower.advance([{} as never]);
  jest.advanceTimersByTime(30_000);
  expect(mockMade[0]!.closed).toBe(true);
  expect(last().loaded).toEqual({ leftOut: new Map(), closely: true, steps: 1 });

  last().ears.onBegun('site a');
  jest.advanceTimersByTime(7_000);
  last().ears.onBegun('site b');
  jest.advanceTimersByTime(8_000);
  expect(mockMade).toHaveLength(3);
  expect([...last().loaded.leftOut]).toEqual([['site b', 'It takes longer than 8 seconds on this plan.']]);

  last().ears.onBegun('site a');
  last().ears.onChange(new Map(), 0);
  jest.advanceTimersByTime(600_000);
  expect(mockMade).toHaveLength(3);
  expect(ready()).toBe(true);
  expect(failed()).toBe('');
});

test('a check that ends the worker is left out too', () => {
  followed();
  last().ears.onFailed('out of memory');
  last().ears.onBegun('site b');
  last().ears.onFailed('out of memory');
  expect([...last().loaded.leftOut]).toEqual([['site b', 'It failed: out of memory.']]);
});

test('where no check is to blame it is said, and all are tried again when asked', () => {
  const { follower, failed } = followed();
  last().ears.onFailed('its program could not be loaded');
  last().ears.onFailed('its program could not be loaded');
  expect(mockMade).toHaveLength(2);
  expect(failed()).toBe('it failed: its program could not be loaded');
  follower.again();
  expect(failed()).toBe('');
  expect(last().loaded).toEqual({ leftOut: new Map(), closely: false, steps: 0 });
});

test('where ten checks never end, no more is tried', () => {
  const { failed } = followed();
  jest.advanceTimersByTime(30_000);
  for (let at = 0; at <= 10; at++) {
    expect(failed()).toBe('');
    last().ears.onBegun(`site check${at}`);
    jest.advanceTimersByTime(8_000);
  }
  expect(failed()).toMatch(/8 seconds/);
});
