import ELK from 'elkjs';
import { type Arrangement, arrange, mapOf } from '../../core/model/map';
import type { Plan } from '../../core/plan';

/** Where the boxes of a plan stand on its map. */
export const arranged = (plan: Plan): Promise<Arrangement> => arrange(mapOf(plan), new Set(), new ELK());
