import fc from 'fast-check';
import { access } from '../model/wiring';
import { type Plan, finish } from '../plan';
import { commissionSite, drawnCommission } from '../testing/commission';
import { put } from '../testing/gear';
import { moreThan, runs } from '../testing/runs';
import { reachedFrom } from './reach';
import { orderOf } from './order';
import { type Next, type Rest, type Result, leftOf, restAfter, runSheetOf, stoodAt } from './run';
import { presentState } from './present';
import { plannedState } from './state';
import { type Step, after, isAsPlanned } from './steps';
import { decodeStep, encodeStep, stepKey } from './wire';

const counts = { steps: 0, again: 0, differs: 0, skipped: 0, changed: 0 };

/** Another segment at a port that nothing is plugged into. */
function changed(plan: Plan, n: number): Plan {
  const { links } = plannedState(plan);
  const free = [...plan.port.values()].filter(
    ({ id, number, role }) => number > 0 && role === 'access' && !links.has(id),
  );
  const port = free[n % Math.max(free.length, 1)];
  if (!port) return plan;
  counts.changed++;
  return put(plan, 'port', port, access(port.untagged === 'staff' ? 'guests' : 'staff'));
}

/** Works off some entries; says of one step what the draw says. Returns what was left out. */
function worked(plan: Plan, results: Result[], take: number, odd: number): Step[] {
  const { entries } = finish(leftOf(plan, results));
  let { state } = stoodAt(plan, results);
  let seat = stoodAt(plan, results).standing.seat;
  for (const entry of entries.slice(0, take)) {
    if (entry.kind === 'sit') {
      seat = entry.socket;
      results.push({ kind: 'sit', socket: seat });
    }
    if (entry.kind !== 'step') continue;
    const { step } = entry;
    const { setting } = step;
    if (setting.kind !== 'plug') expect([...reachedFrom(state, seat!).keys()]).toContain(step.device);
    if (odd === 1) {
      results.push({ kind: 'step', step, outcome: 'differs' });
      counts.differs++;
    }
    // What nobody hangs on is left out: a port with nothing plugged in, where nobody sits.
    const isFree = setting.kind === 'port' && setting.part === 'set' && !state.links.has(setting.port);
    if (odd === 2 && isFree && seat !== setting.port) {
      results.push({ kind: 'step', step, outcome: 'skipped' });
      counts.skipped++;
      return [step];
    }
    results.push({ kind: 'step', step, outcome: 'done' });
    state = after(state, step);
    counts.steps++;
  }
  return [];
}

test('a run worked out again after every few steps, with steps left out and the plan changed under it, ends as planned', () => {
  fc.assert(
    fc.property(
      drawnCommission,
      fc.array(fc.record({ take: fc.integer({ min: 3, max: 40 }), odd: fc.nat(8) }), {
        minLength: 1,
        maxLength: 8,
      }),
      fc.nat(6),
      (drawn, turns, when) => {
        let { plan } = commissionSite(drawn);
        const results: Result[] = [];
        const out = new Set<string>();
        for (let turn = 0; ; turn++) {
          const before = results.length;
          const { take, odd } = turns[turn % turns.length]!;
          for (const { setting } of worked(plan, results, take, odd))
            if ('port' in setting) out.add(setting.port);
          if (turn === when) plan = changed(plan, when);
          if (results.length === before && turn !== when) break;
          counts.again++;
          expect(turn).toBeLessThan(600);
        }
        // Who leaves out the very socket that leads there gets on by the console only.
        const { entries } = finish(leftOf(plan, results));
        if (entries.some(({ kind }) => kind === 'console')) {
          expect(out.size).toBeGreaterThan(0);
          return;
        }
        const { state, standing } = stoodAt(plan, results);
        const then = plannedState(plan);
        const kept = new Set([...out, ...standing.parachutes]);
        state.boxes.forEach((box, at) => {
          const planned = then.boxes[at]!;
          const facts = box.bridge.facts.map((one, i) =>
            kept.has(box.bridge.ports[i]!.id) ? planned.bridge.facts[i]! : one,
          );
          expect(isAsPlanned({ ...box, bridge: { ...box.bridge, facts } }, planned)).toBe(true);
        });
        expect([...standing.unsaved, ...standing.unchecked]).toEqual([]);
      },
    ),
    { numRuns: runs(30), seed: 8, endOnFailure: true },
  );
  for (const [what, least] of [
    ['steps', 1000],
    ['differs', 5],
    ['skipped', 5],
    ['changed', 10],
  ] as const)
    expect([what, counts[what] > moreThan(least)]).toEqual([what, true]);
});

test('a step is the same after it was written down, whatever it sets', () => {
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan } = commissionSite(drawn);
      for (const entry of finish(leftOf(plan, [])).entries) {
        if (entry.kind !== 'step') continue;
        const wire = JSON.parse(JSON.stringify(encodeStep(entry.step))) as ReturnType<typeof encodeStep>;
        expect(stepKey(decodeStep(wire))).toBe(stepKey(entry.step));
        expect(encodeStep(decodeStep(wire))).toEqual(wire);
      }
    }),
    { numRuns: runs(40), seed: 9 },
  );
});

const orderOfSite = (plan: Plan) => orderOf(presentState(plan), plannedState(plan)).entries;
/** What somebody says who does the next thing the sheet asks for. */
const saidOf = (next: Next): Result[] =>
  next.kind === 'sit'
    ? [next]
    : next.steps.map((step) => ({ kind: 'step', step: decodeStep(step), outcome: 'done' }));

test('who does what the sheet asks for next works off the whole order, and it never jumps', () => {
  let seats = 0;
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan } = commissionSite(drawn);
      const entries = orderOfSite(plan);
      let rest: Rest = { after: 0, entries };
      const results: Result[] = [];
      let left = entries.length;
      for (;;) {
        const { next, sheet } = runSheetOf(plan, results, rest.entries);
        if (!next) break;
        if (next.kind === 'sit') seats++;
        results.push(...saidOf(next));
        rest = finish(restAfter(plan, rest, results));
        // The tail of the order as it was worked out, whatever is put together to one step on the sheet.
        expect(rest.entries.length).toBeLessThan(left);
        expect(
          rest.entries.every((entry, at) => entry === entries[entries.length - rest.entries.length + at]),
        ).toBe(true);
        left = rest.entries.length;
        expect(sheet.settings).toBeGreaterThan(0);
      }
      // Every box that was worked on is as planned, but where a parachute stays.
      const { finished } = runSheetOf(plan, results, rest.entries);
      const open = new Set(
        rest.entries.flatMap((entry) => (entry.kind === 'recorded' ? [entry.device] : [])),
      );
      const worked = new Set(results.flatMap((one) => (one.kind === 'step' ? [one.step.device] : [])));
      expect(new Set(finished)).toEqual(new Set([...worked].filter((device) => !open.has(device))));
      expect(rest.entries.every(({ kind }) => kind === 'recorded')).toBe(true);
      const { state } = stoodAt(plan, results);
      expect(state.boxes.map(({ management }) => management)).toEqual(
        plannedState(plan).boxes.map(({ management }) => management),
      );
    }),
    { numRuns: runs(60), seed: 10 },
  );
  expect(seats > moreThan(60)).toBe(true);
});

test('where a step is left out or done before its turn, the rest is worked out from what was done', () => {
  fc.assert(
    fc.property(drawnCommission, fc.nat(200), fc.constantFrom('skipped', 'early'), (drawn, n, how) => {
      const { plan } = commissionSite(drawn);
      const entries = orderOfSite(plan);
      const steps = entries.flatMap((entry) => (entry.kind === 'step' ? [entry.step] : []));
      fc.pre(steps.length > 2);
      // What is saved, or a port that serves as a parachute, comes up again with what is set after; these do not.
      const isOnce = ({ setting }: Step) => setting.kind === 'vlans' || setting.kind === 'management';
      const may = how === 'skipped' ? steps.filter(isOnce) : steps.slice(1);
      const step = may[n % may.length]!;
      const results: Result[] = [{ kind: 'step', step, outcome: how === 'early' ? 'done' : 'skipped' }];
      const rest = finish(restAfter(plan, { after: 0, entries }, results));
      expect(rest.entries).toEqual(finish(leftOf(plan, results)).entries);
      const left = rest.entries.flatMap((entry) => (entry.kind === 'step' ? [stepKey(entry.step)] : []));
      if (how === 'skipped') expect(left).not.toContain(stepKey(step));
      // What differs is still to be done, in its turn.
      const differs: Result[] = [{ kind: 'step', step: steps[0]!, outcome: 'differs' }];
      expect(finish(restAfter(plan, { after: 0, entries }, differs)).entries).toEqual(entries);
    }),
    { numRuns: runs(40), seed: 12 },
  );
});
