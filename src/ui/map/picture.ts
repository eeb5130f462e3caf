import type { Plan } from '@/core/plan';
import { type Arrangement, type MapModel } from '@/core/model/map';
import type { MapLook } from './look';

/** What every box and cable of a map is drawn from. */
export interface Picture {
  readonly plan: Plan;
  readonly model: MapModel;
  readonly arrangement: Arrangement;
  readonly unfolded: ReadonlySet<string>;
  readonly look: MapLook;
}
