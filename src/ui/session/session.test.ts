import { perform } from '@/core/edit';
import {
  type Call,
  type Plan,
  type WireStep,
  applyChange,
  decodeStep,
  encodePlan,
  encodeStep,
  vlansOf,
} from '@/core/plan';
import { done, emptySite, nextSeed } from '@/core/testing/plans';
import { SiteSession } from './session';

/** The page's end of the worker is a browser's; findings are not what is tested here. */
jest.mock('./worker-client', () => ({
  WorkerClient: class {
    private sequence = 0;
    load() {}
    advance() {
      return ++this.sequence;
    }
    close() {}
  },
}));

const start = done(done(emptySite(), 'addSegment', { purpose: 'staff' }), 'addSegment', {
  purpose: 'cameras',
});
const [staff, cameras] = vlansOf(start).map(({ id }) => id) as [string, string];
const rename = (plan: Plan, id: string, name: string): Call => ({
  operation: 'edit',
  input: { table: 'vlan', id, set: { name }, seen: { name: plan.vlan.get(id)!.name } },
});

interface Sent {
  readonly base: number;
  readonly seed: string;
  readonly label: string;
  readonly steps: readonly WireStep[];
}
type Answer = { readonly status: number; readonly body: object } | 'offline' | 'arrives, answer lost';

/** A server with one site: keeps a journal like the real one, or answers what it is told to. */
class Server {
  plan: Plan = start;
  readonly journal: object[] = [];
  readonly received: Sent[] = [];
  /** What it answers next instead of saving. */
  readonly answers: Answer[] = [];

  commit(call: Call, author: string): void {
    const change = perform(this.plan, call, nextSeed());
    this.save({ seed: nextSeed(), label: change.label, author, steps: change.steps.map(encodeStep) }, change);
  }
  private save(entry: object, change: Parameters<typeof applyChange>[1]): void {
    const applied = applyChange(this.plan, change);
    if (!applied.ok) throw new Error('does not apply');
    this.plan = applied.plan;
    this.journal.push({ ...entry, revision: this.journal.length + 1, kind: 'change' });
  }

  answer(path: string, body: Sent | null): Answer {
    if (path.endsWith('/plan'))
      return { status: 200, body: { revision: this.journal.length, plan: encodePlan(this.plan) } };
    if (path.endsWith('/exercise')) return { status: 200, body: { exercise: null } };
    if (!body) throw new Error(`nobody asks for ${path}`);
    this.received.push(body);
    const told = this.answers.shift();
    if (told && told !== 'arrives, answer lost') return told;
    if (this.journal.some((entry) => (entry as Sent).seed === body.seed))
      return { status: 409, body: { between: this.journal.slice(body.base) } };
    if (body.base < this.journal.length)
      return { status: 409, body: { between: this.journal.slice(body.base) } };
    const { seed, label, steps } = body;
    this.save({ seed, label, author: 'Ada', steps }, { label, steps: steps.map(decodeStep) });
    return told ?? { status: 200, body: { revision: this.journal.length } };
  }
}

let server: Server;
let kept: Map<string, string>;
beforeEach(() => {
  jest.useFakeTimers();
  server = new Server();
  kept = new Map();
  const window = {
    sessionStorage: {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => void kept.set(key, value),
      removeItem: (key: string) => void kept.delete(key),
    },
    EventSource: class {
      addEventListener() {}
      close() {}
    },
    fetch: async (path: string, init?: RequestInit) => {
      const body = typeof init?.body === 'string' ? (JSON.parse(init.body) as Sent) : null;
      const answer = server.answer(path, body);
      if (typeof answer === 'string') throw new TypeError('failed to fetch');
      return new Response(JSON.stringify(answer.body), { status: answer.status });
    },
  };
  Object.assign(globalThis, window);
});
afterEach(() => jest.useRealTimers());

async function opened(): Promise<SiteSession> {
  const session = new SiteSession('site', () => 'Ada');
  await jest.advanceTimersByTimeAsync(10);
  expect(session.store.getState().status).toBe('ready');
  return session;
}
const state = (session: SiteSession) => session.store.getState();
const nameIn = (plan: Plan, id: string) => plan.vlan.get(id)!.name;
const refusal = (status: number) => ({ status, body: { title: 'No', detail: `refused with ${status}` } });

describe('a change', () => {
  test('is there at once, and saved when the server has it', async () => {
    const session = await opened();
    session.perform(rename(start, staff, 'Crew'));
    expect([nameIn(session.plan, staff), state(session).saving]).toEqual(['Crew', 'saving']);
    await jest.advanceTimersByTimeAsync(10);
    expect([nameIn(server.plan, staff), state(session).saving, state(session).revision]).toEqual([
      'Crew',
      'saved',
      1,
    ]);
    expect(kept.size).toBe(0);
  });

  test('made on a plan that others changed is run again on the newer one', async () => {
    const session = await opened();
    server.commit(rename(start, cameras, 'Eyes'), 'Bob');
    session.perform(rename(start, staff, 'Crew'));
    await jest.advanceTimersByTimeAsync(10);
    expect([nameIn(server.plan, staff), nameIn(server.plan, cameras)]).toEqual(['Crew', 'Eyes']);
    expect([nameIn(session.plan, cameras), state(session).conflicts]).toEqual(['Eyes', []]);
    expect(state(session).saving).toBe('saved');
  });

  test('of the same field as somebody else’s is shown as a conflict, with the call kept', async () => {
    const session = await opened();
    server.commit(rename(start, staff, 'People'), 'Bob');
    const call = rename(start, staff, 'Crew');
    session.perform(call);
    await jest.advanceTimersByTimeAsync(10);
    expect(nameIn(session.plan, staff)).toBe('People');
    expect(state(session).conflicts).toMatchObject([{ call }]);
    session.dismiss(state(session).conflicts[0]!);
    expect(state(session).conflicts).toEqual([]);
  });

  test('waits while the server cannot be reached, in order, and over a reload', async () => {
    const session = await opened();
    server.answers.push('offline', 'offline');
    session.perform(rename(start, staff, 'Crew'));
    session.perform(rename(session.plan, staff, 'Crew of two'));
    await jest.advanceTimersByTimeAsync(10);
    expect([state(session).saving, server.journal.length]).toEqual(['offline', 0]);
    session.close();
    const again = await opened();
    await jest.advanceTimersByTimeAsync(5000);
    expect([nameIn(again.plan, staff), nameIn(server.plan, staff)]).toEqual(['Crew of two', 'Crew of two']);
    expect(server.journal).toHaveLength(2);
  });

  test('whose answer was lost is not made twice', async () => {
    const session = await opened();
    server.answers.push('arrives, answer lost');
    session.perform(rename(start, staff, 'Crew'));
    await jest.advanceTimersByTimeAsync(5000);
    expect(server.received).toHaveLength(2);
    expect([server.journal.length, state(session).saving, state(session).conflicts]).toEqual([
      1,
      'saved',
      [],
    ]);
  });
});

describe('a change that the server will not take', () => {
  test.each([400, 413, 415, 422])(
    'leaves the queue at %i, is shown with its reason, and holds nothing back',
    async (status) => {
      const session = await opened();
      server.answers.push(refusal(status));
      const call = rename(start, staff, 'Crew');
      session.perform(call);
      session.perform(rename(session.plan, cameras, 'Eyes'));
      await jest.advanceTimersByTimeAsync(10);
      expect(state(session).conflicts).toMatchObject([{ call, why: `refused with ${status}` }]);
      expect([nameIn(session.plan, staff), nameIn(session.plan, cameras)]).toEqual([
        nameIn(start, staff),
        'Eyes',
      ]);
      expect([nameIn(server.plan, cameras), state(session).saving]).toEqual(['Eyes', 'saved']);
    },
  );

  test('is tried three times where the server fails, then shown', async () => {
    const session = await opened();
    server.answers.push(refusal(500), refusal(500), refusal(500));
    session.perform(rename(start, staff, 'Crew'));
    session.perform(rename(session.plan, cameras, 'Eyes'));
    await jest.advanceTimersByTimeAsync(3000);
    expect([state(session).saving, state(session).conflicts]).toEqual(['offline', []]);
    await jest.advanceTimersByTimeAsync(5000);
    expect(state(session).conflicts).toMatchObject([{ why: 'refused with 500' }]);
    expect([nameIn(server.plan, cameras), state(session).saving]).toEqual(['Eyes', 'saved']);
  });

  test.each([429, 503])('stays in the queue at %i, which means later', async (status) => {
    const session = await opened();
    server.answers.push(...Array.from({ length: 5 }, () => refusal(status)));
    session.perform(rename(start, staff, 'Crew'));
    await jest.advanceTimersByTimeAsync(20_000);
    expect([nameIn(server.plan, staff), state(session).conflicts, server.received.length]).toEqual([
      'Crew',
      [],
      6,
    ]);
  });

  test('because the site is gone says so', async () => {
    const session = await opened();
    server.answers.push(refusal(404));
    session.perform(rename(start, staff, 'Crew'));
    await jest.advanceTimersByTimeAsync(10);
    expect(state(session).saving).toBe('deleted');
  });
});

test('a long text is saved whole, under a label that is made to fit', async () => {
  const session = await opened();
  const notes = 'Behind the panel, second shelf 🔌. '.repeat(110);
  const call: Call = {
    operation: 'edit',
    input: { table: 'site', id: 'site', set: { notes: notes.trim() } },
  };
  const { label } = session.perform(call);
  expect([label.length <= 500, label.endsWith('…'), label.isWellFormed()]).toEqual([true, true, true]);
  await jest.advanceTimersByTimeAsync(10);
  expect(state(session).saving).toBe('saved');
  expect(server.plan.site.get('site')!.notes).toBe(notes.trim());
});
