import fc from 'fast-check';
import { type Drawn, commissionSite, drawnCommission, plainDrawing } from '../../testing/commission';
import { moreThan, runs } from '../../testing/runs';
import { laptopFor } from '../laptop';
import type { Entry } from '../entry';
import { orderOf } from '../order';
import { settingsOf } from '../steps';
import { type Bench, type BenchAction, act, benchOf, cutOff, isFinished, whyShut } from './bench';

const must = (bench: Bench, action: BenchAction): Bench => {
  const came = act(bench, action);
  if ('refused' in came) throw new Error(came.refused);
  return came.bench;
};
/** Sits down and takes the address with which a box answers. */
const address = (bench: Bench, device: string): Bench =>
  must(bench, { kind: 'laptop', laptop: laptopFor(bench.plan, bench.now, device) });

/** Follows the order on the pretend boxes; every setting has to be taken. */
function follow(bench: Bench, entries: readonly Entry[]): Bench {
  let at = bench;
  for (const entry of entries) {
    if (entry.kind === 'sit') at = must(at, { kind: 'sit', socket: entry.socket });
    if (entry.kind === 'console') for (const step of entry.steps) at = must(at, { kind: 'console', step });
    if (entry.kind === 'step') {
      if (entry.step.setting.kind !== 'plug') at = address(at, entry.step.device);
      at = must(at, { kind: 'set', step: entry.step });
    }
  }
  return at;
}

const fresh = (drawn: Drawn) => {
  const { plan } = commissionSite(drawn);
  return benchOf(plan);
};

test('whoever follows the order is answered at every step, and all is as planned and saved in the end', () => {
  const counts = { sites: 0, lost: 0 };
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const bench = fresh(drawn);
      const { entries } = orderOf(bench.now, bench.then);
      const end = follow(bench, entries);
      // A parachute that stays open is the only thing otherwise.
      if (entries.every(({ kind }) => kind !== 'recorded')) expect(isFinished(end)).toBe(true);
      expect(end.now.apart.size).toBe(0);
      // A restart of everything changes nothing.
      const again = end.now.boxes.reduce(
        (at, { bridge }) => must(at, { kind: 'restart', device: bridge.device }),
        end,
      );
      expect(again.now.boxes).toEqual(end.now.boxes);
      // Who sets box by box as listed is refused somewhere.
      const first = entries.find((entry) => entry.kind === 'sit');
      if (!first) return;
      counts.sites++;
      let naive = must(bench, { kind: 'sit', socket: first.socket });
      for (const step of settingsOf(bench.now, bench.then)) {
        const { setting } = step;
        if (setting.kind === 'plug' || ('part' in setting && setting.part !== 'set')) continue;
        const came = act(address(naive, step.device), { kind: 'set', step });
        if ('refused' in came) {
          counts.lost++;
          return;
        }
        naive = came.bench;
      }
    }),
    { numRuns: runs(120), seed: 9 },
  );
  expect(counts.sites > moreThan(80) && counts.lost > moreThan(60)).toBe(true);
});

test('what was not saved is lost with a restart; who cuts themselves off is told whom, and gets in again', () => {
  const bench = fresh(plainDrawing);
  const { entries } = orderOf(bench.now, bench.then);
  const first = entries.find((entry) => entry.kind === 'sit')!;
  const seated = address(must(bench, { kind: 'sit', socket: first.socket }), 'b0');
  expect(whyShut(seated, 'b0')).toBe('');
  const steps = settingsOf(bench.now, bench.then).filter(({ device }) => device === 'b0');
  const vlans = steps.find(({ setting }) => setting.kind === 'vlans')!;
  const moved = steps.find(({ setting }) => setting.kind === 'management')!;
  const made = must(seated, { kind: 'set', step: vlans });
  const gone = must(made, { kind: 'set', step: moved });
  expect(cutOff(made, gone)).toEqual(['b0']);
  expect(whyShut(gone, 'b0')).toContain('No answer');
  expect(act(gone, { kind: 'set', step: vlans })).toMatchObject({
    refused: expect.stringContaining('No answer'),
  });
  // Nothing was saved: its plug brings it back as it was, and as it comes it is after a reset too.
  expect(must(gone, { kind: 'restart', device: 'b0' }).now.boxes).toEqual(bench.now.boxes);
  const saved = must(gone, { kind: 'console', step: { device: 'b0', setting: { kind: 'save' } } });
  expect(must(saved, { kind: 'restart', device: 'b0' }).now.boxes).toEqual(gone.now.boxes);
  expect(must(saved, { kind: 'reset', device: 'b0' }).now.boxes).toEqual(bench.now.boxes);
});

test('a laptop that is nowhere, in another subnet or has the address of the box gets no answer', () => {
  const bench = fresh(plainDrawing);
  expect(whyShut(bench, 'b0')).toBe('The laptop is plugged in nowhere.');
  const { entries } = orderOf(bench.now, bench.then);
  const { socket } = entries.find((entry) => entry.kind === 'sit')!;
  const seated = must(bench, { kind: 'sit', socket });
  const [own] = bench.now.boxes;
  expect(own!.management!.address).toBeNull();
  // Nobody knows the address these come with; once they have one of the plan it has to fit.
  const moved = settingsOf(bench.now, bench.then).find(({ setting }) => setting.kind === 'management')!;
  const port = bench.now.boxes[0]!.bridge.ports.find(({ number }) => number === 8)!.id;
  const jack = settingsOf(bench.now, bench.then).find(
    ({ setting }) => setting.kind === 'port' && setting.port === port,
  )!;
  const set = [jack, moved].reduce((at, step) => must(at, { kind: 'console', step }), seated);
  const there = must(set, { kind: 'sit', socket: port });
  const told = (laptop: Bench['laptop']) => whyShut(must(there, { kind: 'laptop', laptop }), 'b0');
  const { address: theirs } = there.now.boxes[0]!.management!;
  expect(told(null)).toContain('no address in its subnet');
  expect(told({ address: theirs!, length: 24 })).toContain('address of the box itself');
  expect(told({ address: 0xc0a80105 as never, length: 24 })).toContain('another subnet');
  expect(told({ address: (Number(theirs) + 50) as never, length: 24 })).toBe('');
  // No laptop goes inside.
  expect(act(there, { kind: 'sit', socket: 'b0p0' })).toHaveProperty('refused');
});
