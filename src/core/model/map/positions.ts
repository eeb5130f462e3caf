import { derive } from '../../plan';
import type { Point } from './arrange';
import { INTERNET } from './map-model';

/** Where somebody put boxes, by box. */
export const positionsOf = derive((plan): Readonly<Record<string, Point>> =>
  Object.fromEntries(
    [...plan.mapPosition.values()].map(({ device, x, y }) => [device ?? INTERNET, { x, y }]),
  ),
);
