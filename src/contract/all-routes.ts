import { routes } from '.';
import { log } from './log';
import type { Route } from './route';

/** Every route there is. */
export const allRoutes: readonly Route[] = Object.values({ ...routes, log }).flatMap(
  (group) => Object.values(group) as readonly Route[],
);
