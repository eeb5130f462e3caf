import type { Order } from '@/core/exercises';
import type { Progress } from '@/core/plan';
import { routes } from '@/contract';
import { ask } from './api';
import { authorName } from './author';

/** Sets an exercise in a copy of a site; returns the id of the copy. */
export async function setExercise(
  siteId: string,
  order: Order,
  asker: { readonly signal?: AbortSignal; readonly hear?: (progress: Progress) => void } = {},
): Promise<string> {
  const body = { ...order, learner: authorName() };
  return (await ask(routes.rehearsal.setExercise, { site: siteId, body, ...asker })).id;
}
