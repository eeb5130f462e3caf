import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { type Call, type Plan, Refusal, encodePlan, vlansOf } from '@/core/plan';
import { done, emptySite } from '@/core/testing/plans';
import { runs } from '@/core/testing/runs';
import type { SiteSession } from './session';
import { REAL, TestBrowser, type Window, pass } from './testing';

jest.mock('./worker-client');

beforeEach(() => jest.useFakeTimers(REAL));
afterEach(() => jest.useRealTimers());

const start = ['staff', 'cameras', 'voice'].reduce(
  (plan, purpose) => done(plan, 'addSegment', { purpose }),
  emptySite(),
);

const renaming = (plan: Plan, at: number, name: string): Call => {
  const vlan = vlansOf(plan)[at % vlansOf(plan).length]!;
  return {
    operation: 'edit',
    input: { table: 'vlan', id: vlan.id, set: { name }, seen: { name: vlan.name } },
  };
};
const removing = (plan: Plan, at: number): Call => ({
  operation: 'removeSegment',
  input: { vlan: vlansOf(plan)[at % vlansOf(plan).length]!.id },
});
/** What makes no sense on a plan is refused there and then. */
function attempt(act: () => void): boolean {
  try {
    act();
    return true;
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  }
}

/** Windows of one site with their server, and the names that were asked for in them. */
class Play {
  readonly browser = new TestBrowser(start);
  readonly server = this.browser.server;
  readonly windows: Window[] = [];
  readonly asked: string[] = [];
  /** A window began without a server, and could not ask whether what another had left was saved. */
  blind = false;
  private names = 0;

  constructor() {
    this.server.part = 3;
  }

  openWindow(): void {
    this.windows.push(this.browser.window());
    this.blind ||= this.server.away;
  }
  /** The server goes or comes; the stream of news may be slow to notice. */
  reach(reached: boolean, noticed = true): void {
    this.blind ||= this.windows.some(({ session }) => session.store.getState().status !== 'ready');
    this.server.away = !reached;
    if (noticed) this.server.tell({ open: reached });
  }
  rename(session: SiteSession, at: number): void {
    const name = `Mine ${this.names++}`;
    if (attempt(() => session.perform(renaming(session.plan, at, name)))) this.asked.push(name);
  }
  another(call: (plan: Plan, at: number, name: string) => Call, at: number): void {
    const { plan } = this.server;
    if (vlansOf(plan).length > 1)
      attempt(() => this.server.commit(call(plan, at, `Theirs ${this.names++}`), 'Bob'));
  }

  /** The server is there to stay, and one more window takes over what closed ones left. */
  async end(): Promise<void> {
    Object.assign(this.server, { slow: 0 }).answers.length = 0;
    this.reach(true);
    await pass(5000);
    this.openWindow();
    await pass(10_000);
  }
}

/** What may be done in a window while it shows a plan with segments; a number says to which. */
const inWindow: Readonly<Record<string, (play: Play, session: SiteSession, at: number) => void>> = {
  rename: (play, session, at) => play.rename(session, at),
  add: (_play, session) =>
    attempt(() => session.perform({ operation: 'addSegment', input: { purpose: 'guest' } })),
  remove: (_play, session, at) => attempt(() => session.perform(removing(session.plan, at))),
  undo: (_play, session) => void session.undo('undo'),
  redo: (_play, session) => void session.undo('redo'),
};
/** What may happen besides. */
const around: Readonly<Record<string, (play: Play, at: number) => void | Promise<void>>> = {
  'another renames': (play, at) => play.another(renaming, at),
  'another removes': (play, at) => play.another(removing, at),
  'server away': (play) => play.reach(false),
  'server away, unnoticed': (play) => play.reach(false, false),
  'server back': (play) => play.reach(true),
  'server slow': ({ server }, at) => void (server.slow = at),
  'server quick': ({ server }) => void (server.slow = 0),
  'answer lost': ({ server }) => void server.answers.push('arrives, answer lost'),
  'window opened': (play) => void (play.windows.length < 3 && play.openWindow()),
  'window closed': ({ windows }, at) => windows.splice(at % Math.max(1, windows.length), 1)[0]?.close(),
  'reload as the server goes': (play, at) => {
    play.windows.splice(at % Math.max(1, play.windows.length), 1)[0]?.close();
    play.openWindow();
    play.reach(false, false);
  },
  time: (_play, at) => pass(at * 5),
};

const happening = fc.record({
  what: fc.constantFrom('rename', 'rename', ...Object.keys(inWindow), ...Object.keys(around)),
  at: fc.nat(1000),
});

async function happen(play: Play, what: string, at: number): Promise<void> {
  await around[what]?.(play, at);
  const session = play.windows[at % Math.max(1, play.windows.length)]?.session;
  if (session?.store.getState().status === 'ready' && vlansOf(session.plan).length > 1)
    inWindow[what]?.(play, session, at);
  // Half of what comes next does not wait for what this has begun.
  if (at % 2) await pass();
}

/** Everybody has what the server has, and nothing waits. */
function expectTogether({ server, windows }: Play): void {
  for (const { session } of windows) {
    const { plan, saving, unsaved, revision } = session.store.getState();
    expect([saving, unsaved, revision]).toEqual(['saved', 0, server.journal.length]);
    expect(encodePlan(plan)).toEqual(encodePlan(server.plan));
  }
  const seeds = server.journal.map(({ seed }) => seed);
  expect(new Set(seeds).size).toBe(seeds.length);
}

/** By each change that was asked for: how often it was saved, and how often it stands as a conflict. */
function outcomes({ server, windows, asked }: Play) {
  const calls = windows.flatMap(({ session }) => session.store.getState().conflicts.map(({ call }) => call));
  return asked.map((name) => ({
    name,
    saved: server.journal.filter(
      ({ kind, steps }) =>
        kind === 'change' && steps.some(({ after }) => after && 'name' in after && after.name === name),
    ).length,
    open: calls.filter((call) => JSON.stringify(call.input).includes(`"set":{"name":"${name}"}`)).length,
  }));
}

test('windows come to the server’s plan, and each change is saved once or stands as a conflict', async () => {
  let [conflicts, saves] = [0, 0];
  await fc.assert(
    fc.asyncProperty(fc.array(happening, { minLength: 5, maxLength: 30 }), async (happenings) => {
      const play = new Play();
      try {
        play.openWindow();
        await pass();
        for (const { what, at } of happenings) await happen(play, what, at);
        await play.end();
        expectTogether(play);
        for (const { name, saved, open } of outcomes(play)) {
          // Who began without a server may take what is saved for a conflict, as it is in the plan already.
          expect([name, play.blind ? Math.max(saved, open) : saved + open]).toEqual([name, 1]);
          conflicts += open;
          saves += saved;
        }
      } finally {
        for (const { close } of play.windows) close();
      }
    }),
    { numRuns: runs(150) },
  );
  expect(saves).toBeGreaterThan(conflicts);
  expect(conflicts).toBeGreaterThan(0);
});
