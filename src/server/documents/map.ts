import ELK from 'elkjs';
import { type Arrangement, arrange, mapOf, positionsOf, withMoved } from '../../core/model/map';
import type { Plan } from '../../core/plan';

/** Where the boxes of a plan stand on its map. */
export async function arranged(plan: Plan): Promise<Arrangement> {
  const model = mapOf(plan);
  return withMoved(await arrange(model, new Set(), new ELK()), model, positionsOf(plan));
}
