import type { Formers } from '@/core/commission';
import { type Plan, decodePlan } from '@/core/plan';
import type { FormerText } from './protocol';

/** Reads plans of earlier changes, each once. */
export class FormerReader {
  private readonly known = new Map<number, Plan>();

  read(texts: readonly FormerText[]): Formers {
    for (const { revision, text } of texts)
      if (!this.known.has(revision)) this.known.set(revision, decodePlan(JSON.parse(text).plan));
    return this.known;
  }
}
