import { Refusal } from '@/core/plan';
import { ApiProblem, Offline } from './api';

/** Expected trouble: it has words of its own. Anything else is a defect. */
export const isTold = (error: unknown): error is Refusal | ApiProblem | Offline =>
  error instanceof Refusal || error instanceof ApiProblem || error instanceof Offline;

/** Runs something a user asked for. A Refusal comes back as a value to show; anything else is a defect and flies on. */
export function attempt<T>(work: () => T): { readonly value: T } | { readonly refusal: Refusal } {
  try {
    return { value: work() };
  } catch (error) {
    if (error instanceof Refusal) return { refusal: error };
    throw error;
  }
}

/** The message of the refusal, or an empty text when it went through: what a form shows beside its field. */
export function problemOf(work: () => void): string {
  const result = attempt(work);
  return 'refusal' in result ? result.refusal.message : '';
}
