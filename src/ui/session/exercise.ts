import type { Order } from '@/core/exercises';
import { sendJson } from './api';
import { authorName } from './author';

/** Sets an exercise in a copy of a site; returns the id of the copy. */
export async function setExercise(siteId: string, order: Order): Promise<string> {
  const body = { ...order, learner: authorName() };
  return (await sendJson<{ id: string }>('POST', `/api/sites/${siteId}/exercises`, body)).id;
}
