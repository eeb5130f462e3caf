import type { Plan } from '@/core/plan';
import type { Arrangement } from './arrange';
import type { MapLook } from './look';
import type { MapModel } from './map-model';

/** What every box and cable of a map is drawn from. */
export interface Picture {
  readonly plan: Plan;
  readonly model: MapModel;
  readonly arrangement: Arrangement;
  readonly unfolded: ReadonlySet<string>;
  readonly look: MapLook;
}
