import type { Plan } from '../../plan';
import { type Trunk, ringsOf } from './carry';
import { treesOf } from '../tree';

/** Whether frames can go round for ever. */

/** Is there a way round left, when no frame crosses a link that a tree or a ring blocks for some VLAN? A bundle is one link. */
export function goesRound(plan: Plan, trunks: readonly Trunk[]): boolean {
  const { blocked } = treesOf(plan);
  const parts = new Map<number, number>();
  const root = (at: number): number => ((parts.get(at) ?? at) === at ? at : root(parts.get(at)!));
  const bundles = new Set<string>();
  for (const { a, b, from, to } of trunks) {
    if (blocked.has(from.id) || blocked.has(to.id)) continue;
    if (from.lag !== null && to.lag !== null) {
      const bundle = [from.lag, to.lag].sort().join();
      if (bundles.has(bundle)) continue;
      bundles.add(bundle);
    }
    const [x, y] = [root(a), root(b)];
    if (x === y) return true;
    parts.set(y, x);
  }
  return false;
}

/** Does anything go round in this site? */
export const hasLoop = (plan: Plan): boolean => ringsOf(plan).some(({ trunks }) => goesRound(plan, trunks));
