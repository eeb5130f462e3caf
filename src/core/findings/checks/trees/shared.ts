import type { Plan } from '../../../plan';
import { boxesInOrder, fabric } from '../../../model/switching';
import { treesOf, Reasons, type Grown } from '../../../model/tree';
import type { SiteCheck } from '../../finding';

/** What the checks of trees and rings have in common. */

export const treeCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'rehearse',
  scope: 'site',
  find,
});

export const commonOf = (plan: Plan): Grown | undefined =>
  treesOf(plan).grown.find(({ kind }) => kind === 'common');

/** The parts of a tree in which something is blocked: only there does it matter who is root. */
export function* partsWithChoice(
  plan: Plan,
  grown: Grown,
): Generator<{ readonly reasons: Reasons; readonly root: number; readonly part: readonly number[] }> {
  const reasons = new Reasons(plan, fabric(plan), grown);
  const { tree, topology } = grown;
  for (const root of reasons.roots()) {
    const part = reasons.partOf(root);
    const inside = new Set(part);
    const blocked = tree.roles.some(
      (role, end) => (role === 'alternate' || role === 'backup') && inside.has(topology.ends[end]!.bridge),
    );
    if (part.length > 1 && blocked) yield { reasons, root, part };
  }
}

/** The device of a bridge of a tree. */
export const deviceAt = (plan: Plan, grown: Grown, bridge: number): string =>
  boxesInOrder(plan)[grown.places[bridge]!]!.device;

/** What a remedy that changes a tree says of it. */
export const andCarry = (vlans: readonly string[]): string =>
  vlans.length > 0 ? ', and carry every VLAN on every way' : '';
