import { perform } from '@/core/edit';
import {
  type Plan,
  Refusal,
  type Step,
  type WireCall,
  applySteps,
  digestOf,
  encodePlan,
  encodeStep,
  invertSteps,
} from '@/core/plan';
import { nextSeed } from '@/core/testing/plans';
import { KeptHere } from './kept-here';
import type { Heard } from './news';
import { SiteSession } from './session';

/** A server with one site for the tests of a session: keeps a journal like the real one, or answers what it is told to. */

interface Saved {
  readonly revision: number;
  readonly seed: string;
  readonly label: string;
  readonly author: string;
  readonly steps: readonly Step[];
  readonly kind: string;
}
interface Body {
  readonly kind: string;
  readonly base: number;
  readonly seed: string;
  readonly undoes: string;
  readonly digest: string;
  readonly reviewed: boolean;
  readonly author: string;
}
export type Answer = { readonly status: number; readonly body: object } | 'offline' | 'arrives, answer lost';

export class FakeServer {
  readonly journal: Saved[] = [];
  readonly received: Body[] = [];
  /** What it answers next to a change instead of saving it. */
  readonly answers: Answer[] = [];
  /** Nothing reaches it. */
  away = false;
  /** So many changes it tells at once. */
  part = Infinity;
  /** Its answers take so many milliseconds to come. */
  slow = 0;
  private readonly hearers = new Set<(heard: Heard) => void>();

  constructor(public plan: Plan) {}

  /** The news of the windows that it serves. */
  readonly news = {
    hear: (hearer: (heard: Heard) => void) => {
      this.hearers.add(hearer);
      return () => this.hearers.delete(hearer);
    },
  };
  tell(heard: Heard): void {
    for (const hearer of this.hearers) hearer(heard);
  }

  /** Somebody else’s change. */
  commit(call: WireCall, author: string): void {
    const change = perform(this.plan, call, nextSeed());
    this.save({ seed: nextSeed(), author, kind: 'change', ...change });
  }

  private save(entry: Omit<Saved, 'revision'>): void {
    const applied = applySteps(this.plan, entry.steps);
    if (!applied.ok) throw new Error('does not apply');
    this.plan = applied.plan;
    this.journal.push({ ...entry, revision: this.journal.length + 1 });
    // Who has sent it hears of it too, and sooner than the answer comes.
    if (!this.away) this.tell({ site: 'site', revision: this.journal.length });
  }

  private told(since: number, body?: Body) {
    const told = this.journal.slice(since, since + this.part).map(({ steps, ...entry }) => ({
      ...entry,
      operation: 'edit',
      at: '2026-05-04T10:20:30.456Z',
      undoes: null,
      steps:
        body && entry.seed === body.seed && digestOf(steps.map(encodeStep)) === body.digest
          ? null
          : steps.map(encodeStep),
    }));
    return { told, more: since + this.part < this.journal.length };
  }

  private change(body: Body & WireCall) {
    const target = this.journal.find(({ seed }) => seed === body.undoes);
    if (body.kind === 'undo' || body.kind === 'redo') {
      if (!target) throw new Refusal('missing', 'There is no such change.');
      const input = {
        label: `${body.kind} ${target.label}`,
        steps: invertSteps(target.steps).map(encodeStep),
      };
      return perform(this.plan, { operation: 'takeSteps', input }, body.seed);
    }
    return perform(this.plan, { operation: body.operation, input: body.input }, body.seed);
  }

  answer(path: string, text: string | null): Answer {
    if (this.away) return 'offline';
    const url = new URL(path, 'http://localhost');
    const body = text === null ? null : (JSON.parse(text) as Body & WireCall & { seeds: string[] });
    const at = this.journal.length;
    const ok = (answer: object) => ({ status: 200, body: answer });
    if (url.pathname.endsWith('/plan')) return ok({ revision: at, plan: encodePlan(this.plan) });
    if (url.pathname.endsWith('/exercise')) return ok({ exercise: null });
    if (url.pathname.endsWith('/changes/saved'))
      return ok({ saved: this.journal.filter(({ seed }) => body!.seeds.includes(seed)) });
    if (url.pathname.endsWith('/undo')) {
      const mine = this.journal.filter(({ author }) => author === 'Ada').at(-1);
      const entry = mine ? { ...mine, steps: mine.steps.map(encodeStep) } : null;
      return ok({ undo: mine?.kind === 'undo' ? null : entry, redo: mine?.kind === 'undo' ? entry : null });
    }
    if (!body) {
      const { told, more } = this.told(Number(url.searchParams.get('since')));
      return ok({ revision: at, changes: told, more });
    }
    this.received.push(body);
    const told = this.answers.shift();
    if (told && told !== 'arrives, answer lost') return told;
    if (!this.journal.some(({ seed }) => seed === body.seed)) {
      try {
        const change = this.change(body);
        if (change.steps.length === 0) return ok({ revision: null, ...this.between(body) });
        if (body.reviewed && digestOf(change.steps.map(encodeStep)) !== body.digest)
          return { status: 409, body: { detail: 'another result' } };
        this.save({ seed: body.seed, author: body.author, kind: body.kind, ...change });
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        return { status: error.code === 'changed' ? 409 : 422, body: { detail: error.message } };
      }
    }
    if (told) return 'offline';
    return ok({ revision: this.journal.length, ...this.between(body) });
  }
  private between(body: Body) {
    const { told, more } = this.told(body.base, body);
    return { entries: told, more };
  }
}

/** What goes on by itself while timers are those of the test. */
export const REAL = {
  doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] as (
    'setImmediate' | 'queueMicrotask' | 'nextTick'
  )[],
};

/** Lets everything happen that is not a matter of time, then so many milliseconds pass. */
export async function pass(ms = 0): Promise<void> {
  const settle = async () => {
    for (let i = 0; i < 60; i++) await new Promise((resolve) => setImmediate(resolve));
  };
  await settle();
  for (let left = ms; left > 0; left -= 500) {
    await jest.advanceTimersByTimeAsync(Math.min(left, 500));
    await settle();
  }
}

export interface Window {
  readonly session: SiteSession;
  readonly close: () => void;
}

/** A browser that nothing was kept in yet, with a server that is all it reaches. */
export class TestBrowser {
  readonly server: FakeServer;
  /** The windows that are open, by the names of what they keep. */
  private readonly open = new Set<string>();
  private windows = 0;

  constructor(plan: Plan) {
    this.server = new FakeServer(plan);
    indexedDB = new IDBFactory();
    Object.assign(globalThis, {
      fetch: async (path: string, init?: RequestInit) => {
        const answer = this.server.answer(path, typeof init?.body === 'string' ? init.body : null);
        const { slow } = this.server;
        if (slow > 0) await new Promise((resolve) => setTimeout(resolve, slow));
        if (typeof answer === 'string') throw new TypeError('failed to fetch');
        return new Response(JSON.stringify(answer.body), { status: answer.status });
      },
    });
  }

  window(): Window {
    const name = `w${this.windows++}`;
    this.open.add(name);
    const kept = new KeptHere(name, async () => this.open);
    const news = this.server.news as never;
    const session = new SiteSession('site', { author: () => 'Ada', browser: () => 'browser01', kept, news });
    return {
      session,
      close: () => {
        session.close();
        this.open.delete(name);
      },
    };
  }
}
