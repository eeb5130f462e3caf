import fc from 'fast-check';
import { addOffset, contains, networkOf } from '../address';
import { Draft } from '../plan';
import { type Drawing, type Drawn, commissionSite, drawnCommission } from '../testing/commission';
import { done } from '../testing/plans';
import { moreThan, runs } from '../testing/runs';
import {
  type Entry,
  type Formers,
  type SiteState,
  type Step,
  after,
  comesOf,
  cutOffsIn,
  edited,
  followed,
  laptopFor,
  lostWithoutOrder,
  orderOf,
  plannedState,
  presentState,
  reachedFrom,
  settingsOf,
} from './index';
import { standingAfter } from './standing';
import { isAsPlanned } from './steps';

/** What is left to do at each box after some entries of an order. */
function openAfter(entries: readonly Entry[]): ReadonlySet<string> {
  return new Set(entries.flatMap((entry) => (entry.kind === 'step' ? [entry.step.device] : [])));
}
/** The sockets somebody could sit at, of every box. */
const socketsOf = ({ boxes, links, apart }: SiteState): string[] =>
  boxes.flatMap(({ bridge }) =>
    bridge.ports.flatMap(({ id, number }, i) =>
      number > 0 && bridge.facts[i] && (!links.has(id) || apart.has(bridge.device)) ? [id] : [],
    ),
  );

const stepsIn = (entry: Entry): readonly Step[] =>
  entry.kind === 'step' ? [entry.step] : entry.kind === 'console' ? entry.steps : [];

const seen = {
  steps: 0,
  parachutes: 0,
  moves: 0,
  apart: 0,
  single: 0,
  recorded: 0,
  naive: 0,
  sites: 0,
  console: 0,
};

/** Law: every step is set at a box that is reached; no box with something left is out of everybody’s reach afterwards. */
function follow({ plan, comes, formers }: Drawing & { readonly formers?: Formers }): void {
  const then = plannedState(plan);
  const now = presentState(plan, comes, formers);
  const { entries, end } = orderOf(now, then);
  let state = now;
  let seat = '';
  // Told at the end: an expectation for each step would take longer than the steps.
  const wrong: string[] = [];
  const [open, recorded] = [new Set<string>(), new Set<string>()];
  const unreached = new Set(now.boxes.map(({ bridge }) => bridge.device));
  for (const socket of socketsOf(now))
    for (const device of reachedFrom(now, socket).keys()) unreached.delete(device);
  entries.forEach((entry, at) => {
    if (entry.kind === 'sit') {
      seat = entry.socket;
      seen.moves++;
    } else if (entry.kind === 'recorded') {
      open.delete(entry.port);
      recorded.add(entry.port);
      seen.recorded++;
    } else if (entry.kind === 'step') {
      const { step, socket } = entry;
      if (socket !== seat) wrong.push(`${at}: done from ${socket}, not from ${seat}`);
      if (step.setting.kind !== 'plug' && !reachedFrom(state, seat).has(step.device))
        wrong.push(`${at}: ${step.device} is not reached`);
      state = after(state, step);
      seen.steps++;
      if (step.setting.kind === 'parachute') {
        open.add(step.setting.port);
        seen.parachutes++;
      } else if (step.setting.kind === 'port') open.delete(step.setting.port);
      const missing = new Set(openAfter(entries.slice(at + 1)));
      for (const device of reachedFrom(state, seat).keys()) missing.delete(device);
      if (missing.size > 0)
        for (const other of socketsOf(state))
          for (const device of reachedFrom(state, other).keys()) missing.delete(device);
      // One that nobody reaches at first, like one that is begun at its console, is reached once its segment is there, and from then on.
      for (const device of unreached) if (!missing.delete(device)) unreached.delete(device);
      for (const device of missing) wrong.push(`${at}: ${device} is out of reach`);
    }
    if (entry.kind === 'console') {
      // Only where nothing answers on the wire.
      if (comes.get(entry.device)?.way !== 'console')
        for (const socket of socketsOf(state))
          if (reachedFrom(state, socket).has(entry.device)) wrong.push(`${at}: it answers at ${socket}`);
      for (const step of entry.steps) state = after(state, step);
      unreached.add(entry.device);
      seen.console++;
    }
  });
  expect(wrong).toEqual([]);
  expect([...open]).toEqual([]);
  allIsSaved(now, entries);
  expect(state.boxes).toEqual(end.boxes);
  const isKept = (id: string) => recorded.has(id);
  end.boxes.forEach((box, at) => {
    const planned = then.boxes[at]!;
    const facts = box.bridge.facts.map((one, i) =>
      isKept(box.bridge.ports[i]!.id) ? planned.bridge.facts[i]! : one,
    );
    const closed = { ...box, bridge: { ...box.bridge, facts } };
    expect([box.bridge.device, isAsPlanned(closed, planned)]).toEqual([box.bridge.device, true]);
  });
  expect(end.apart.size).toBe(0);
  // Only a site without a planned place to sit keeps a parachute.
  if (recorded.size > 0) expect(recorded.size).toBe(1);
  if (now.apart.size > 0) seen.apart++;
  if (now.boxes.some(({ bridge }) => now.apart.has(bridge.device) && bridge.ports.length === 2))
    seen.single++;
  const first = entries.find((entry) => entry.kind === 'sit');
  if (first) {
    if (lostWithoutOrder(now, then, first.socket).length > 0) seen.naive++;
    seen.sites++;
  }
}

/** Followed to its end, with parachutes that are recorded left as they are. */
function endsAsPlanned(now: SiteState, then: SiteState, entries: readonly Entry[]): void {
  const kept = new Set(entries.flatMap((entry) => (entry.kind === 'recorded' ? [entry.port] : [])));
  const end = entries.flatMap(stepsIn).reduce(after, now);
  end.boxes.forEach((box, at) => {
    const planned = then.boxes[at]!;
    const facts = box.bridge.facts.map((one, i) =>
      kept.has(box.bridge.ports[i]!.id) ? planned.bridge.facts[i]! : one,
    );
    expect(isAsPlanned({ ...box, bridge: { ...box.bridge, facts } }, planned)).toBe(true);
  });
  expect(end.apart.size).toBe(0);
}

/** Everything that was set is saved afterwards, and looked at after a restart. */
function allIsSaved(now: SiteState, entries: readonly Entry[]): void {
  const { standing } = standingAfter(now, entries);
  expect([...standing.unsaved, ...standing.unchecked]).toEqual([]);
}

/** The same site as it was: other roles, other natives, other management addresses, set up long ago. */
function wasBefore(drawn: Drawn, shift: number) {
  const rotated = <T>(all: readonly T[]) => [...all.slice(shift), ...all.slice(0, shift)];
  const former = {
    ...drawn,
    roles: rotated(drawn.roles),
    natives: rotated(drawn.natives),
    jacks: rotated(drawn.jacks),
  };
  const { plan } = commissionSite({ ...former, comes: drawn.comes.map(() => 'done' as const) });
  const draft = new Draft(plan, 'was');
  for (const { id, address } of plan.address.values())
    draft.update('address', id, { address: addOffset(address, shift % 2 === 0 ? 0 : 100) });
  return draft.plan;
}

test('a site that was set up once is led to the plan of today without losing a box', () => {
  const counts = { steps: 0, none: 0, moved: 0 };
  fc.assert(
    fc.property(drawnCommission, fc.nat(8), (drawn, shift) => {
      const { plan } = commissionSite({ ...drawn, comes: drawn.comes.map(() => 'done' as const) });
      const devices = [...plan.box.values()].map(({ device }) => device);
      const set = { state: 'as-planned', asOf: 7 };
      const site = done(plan, 'setPresent', { devices, set });
      const formers = new Map([[7, wasBefore(drawn, shift)]]);
      const now = presentState(site, undefined, formers);
      const steps = settingsOf(now, plannedState(site));
      counts.steps += steps.length;
      if (shift === 0) expect(steps).toEqual([]);
      if (steps.length === 0) counts.none++;
      if (steps.some(({ setting }) => setting.kind === 'management')) counts.moved++;
      follow({ plan: site, comes: comesOf(site), formers });
    }),
    { numRuns: runs(300), seed: 6 },
  );
  expect(counts.steps > moreThan(3000) && counts.none > moreThan(10) && counts.moved > moreThan(60)).toBe(
    true,
  );
});

test('an order changed by hand says where it cuts off, and the rest is mended', () => {
  const counts = { cut: 0, sound: 0, late: 0, same: 0 };
  fc.assert(
    fc.property(drawnCommission, fc.nat(1000), fc.nat(1000), (drawn, a, b) => {
      const { plan, comes } = commissionSite(drawn);
      const [now, then] = [presentState(plan, comes), plannedState(plan)];
      const { entries } = orderOf(now, then);
      expect(cutOffsIn(now, entries)).toEqual([]);
      if (entries.length < 2) return;
      const [from, to] = [a % entries.length, b % entries.length];
      const move = { kind: 'move', at: from, count: 1, to } as const;
      const moved = edited(now, then, entries, [move]);
      expect(moved).toEqual(entries.toSpliced(from, 1).toSpliced(to, 0, entries[from]!));
      const cuts = cutOffsIn(now, moved);
      if (cuts.length > 0) counts.cut++;
      else {
        counts.sound++;
        endsAsPlanned(now, then, moved);
      }
      if (cuts.some(({ late }) => late)) counts.late++;
      // Up to where it first cuts off it stays as it was made.
      const keep = cuts[0]?.at ?? moved.length;
      const better = edited(now, then, entries, [move, { kind: 'mend', keep }]);
      expect(better.slice(0, keep)).toEqual(moved.slice(0, keep));
      expect(cutOffsIn(now, better)).toEqual([]);
      endsAsPlanned(now, then, better);
      allIsSaved(now, better);
      // What is said of every step is what the order said of it; a parachute makes work that nobody knew of before.
      if (entries.every((entry) => entry.kind !== 'step' || entry.step.setting.kind !== 'parachute')) {
        expect(followed(now, entries).entries).toEqual(entries);
        counts.same++;
      }
    }),
    { numRuns: runs(200), seed: 2 },
  );
  expect(
    counts.cut > moreThan(20) &&
      counts.sound > moreThan(50) &&
      counts.late > moreThan(3) &&
      counts.same > moreThan(50),
  ).toBe(true);
});

test('a laptop gets an address of the same subnet that nobody has', () => {
  const { plan, comes } = commissionSite(fc.sample(drawnCommission, { seed: 3, numRuns: 1 })[0]!);
  const [now, then] = [presentState(plan, comes), plannedState(plan)];
  for (const state of [now, then]) {
    const used = new Set(state.boxes.map(({ management }) => management!.address));
    for (const { bridge, management } of state.boxes) {
      const { address, length } = laptopFor(plan, state, bridge.device)!;
      expect(length).toBe(management!.length);
      expect(contains(networkOf(management!.address!, length), address)).toBe(true);
      expect(used.has(address)).toBe(false);
    }
  }
});

test('nobody cuts themselves off, and everything ends as planned', () => {
  fc.assert(
    fc.property(drawnCommission, (drawn) => follow(commissionSite(drawn))),
    {
      numRuns: runs(500),
      seed: 1,
    },
  );
  for (const [what, least] of [
    ['steps', 20_000],
    ['parachutes', 100],
    ['moves', 1000],
    ['apart', 80],
    ['single', 20],
    ['recorded', 20],
    ['naive', 250],
    ['console', 30],
  ] as const)
    expect([what, seen[what] > moreThan(least)]).toEqual([what, true]);
});
