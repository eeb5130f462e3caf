import { type BodyOf, type Entry, routes } from '@/contract';
import { type WireStep, digestOf, encodeStep } from '@/core/plan';
import { ApiProblem, Offline, ask } from './api';
import type { Pending } from './pending';

/** A journal entry as the server tells it; without steps where it is what this window worked out. */
export type Told = Pick<Entry, 'revision' | 'seed' | 'label' | 'author'> & {
  readonly steps: readonly WireStep[] | null;
};

/** Who sends, and what becomes of what is sent. */
export interface Sending {
  readonly siteId: string;
  readonly author: () => string;
  readonly browser: () => string;
  /** The change to send next; nothing while there is none, or nobody wants it sent. */
  readonly head: () => Pending | undefined;
  readonly revision: () => number;
  /** The server answered at all. */
  readonly reached: () => void;
  /** Takes what the server told, the change itself included; it may have changed nothing. */
  readonly saved: (seed: string, entries: readonly Told[], more: boolean) => Promise<void>;
  /** Fetches what came between. */
  readonly catchUp: () => Promise<void>;
  /** The server will not take it, for good. */
  readonly refused: (head: Pending, why: string) => void;
  /** There is no such site any more. */
  readonly gone: () => void;
  /** It could not be sent now; why, where the server said so. */
  readonly failed: (away: boolean, why: string) => void;
}

/** Answers that mean: not now. */
const LATER: ReadonlySet<number> = new Set([408, 425, 429, 502, 503, 504]);
/** So often a change is sent that the server will not take. */
const TRIES = 3;

/** Sends the queue of a window to the server, one change after the other. */
export class Sender {
  private sending = false;
  /** The change that was refused last, and how often in a row. */
  private refusals = { seed: '', times: 0 };

  constructor(private readonly to: Sending) {}

  async pump(): Promise<void> {
    if (this.sending || !this.to.head()) return;
    this.sending = true;
    try {
      for (let head = this.to.head(); head; head = this.to.head()) await this.send(head);
    } catch (error) {
      if (error instanceof ApiProblem && error.status === 404) this.to.gone();
      else this.to.failed(error instanceof Offline, (error as Error).message);
    } finally {
      this.sending = false;
    }
  }

  private async send(head: Pending): Promise<void> {
    const { to } = this;
    try {
      const body = this.bodyOf(head);
      const { entries, more } = await ask(routes.journal.commit, { site: to.siteId, body });
      to.reached();
      await to.saved(head.seed, entries, more);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      to.reached();
      if (!this.isRefused(head.seed, error.status)) throw error;
      // With what came between it may be another change by now, or a conflict that says more than the server knows.
      await to.catchUp();
      const now = to.head();
      if (now?.seed === head.seed && this.refusals.times >= TRIES) to.refused(now, error.message);
    }
  }

  private bodyOf(head: Pending): BodyOf<typeof routes.journal.commit> {
    const common = {
      base: this.to.revision(),
      seed: head.seed,
      author: this.to.author(),
      browser: this.to.browser(),
      digest: digestOf(head.steps.map(encodeStep)),
      reviewed: head.reviewed,
    };
    if (head.kind === 'undo' || head.kind === 'redo')
      return { kind: head.kind, ...common, undoes: head.undoes };
    if (head.kind === 'back') return { kind: 'back', ...common, to: head.to };
    const { operation, input } = head.call;
    return { kind: 'change', ...common, operation, input };
  }

  /** Is it of no use to send a change again as it is? Not where the site is gone, or the server asks to come later. */
  private isRefused(seed: string, status: number): boolean {
    if (status === 404 || LATER.has(status)) return false;
    const { refusals } = this;
    this.refusals = { seed, times: refusals.seed === seed ? refusals.times + 1 : 1 };
    // What the server says of the change itself it will say again.
    if (status < 500 && status !== 409) this.refusals.times = TRIES;
    return status < 500 || this.refusals.times >= TRIES;
  }
}
