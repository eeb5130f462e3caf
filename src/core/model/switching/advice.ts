import { type Plan, derive, plainVlansOf, routersOf } from '../../plan';
import { type Fabric, inwardPorts } from '../wiring';
import { missingPorts } from './carry';
import type { Grown } from '../tree';

/** Where a root belongs: where the traffic goes. */
export interface Candidate {
  /** Bridge of the topology. */
  readonly bridge: number;
  readonly device: string;
  /** Links to the nearest router; Infinity where none is joined. */
  readonly toRouter: number;
  readonly feeds: number;
  /** Links to other boxes. */
  readonly links: number;
}

/** Links from the nearest router to each box of the fabric, by place. */
function fromRouters(plan: Plan, fabric: Fabric): number[] {
  const { bridges, seats, links } = fabric;
  const routers = new Set(routersOf(plan).map(({ id }) => id));
  const far = bridges.map(({ device }) => (routers.has(device) ? 0 : Infinity));
  const queue = far.flatMap((distance, at) => (distance === 0 ? [at] : []));
  const inward = inwardPorts(fabric);
  for (const at of queue)
    for (const index of inward[at]!)
      for (const link of links.get(bridges[at]!.ports[index]!.id) ?? []) {
        const next = seats.get(link.to)?.bridge;
        if (next === undefined || far[next]! <= far[at]! + 1) continue;
        far[next] = far[at]! + 1;
        queue.push(next);
      }
  return far;
}

/**
 * The bridges of one part, best root first: nearest to the routers, then fed twice, then with the most links. A root there
 * keeps traffic on the short ways, and a second one beside it takes over without a detour.
 */
export function rootCandidates(
  plan: Plan,
  fabric: Fabric,
  grown: Grown,
  part: readonly number[],
): Candidate[] {
  const far = fromRouters(plan, fabric);
  return part
    .map((bridge): Candidate => {
      const { device, box } = fabric.bridges[grown.places[bridge]!]!;
      return {
        bridge,
        device,
        toRouter: far[grown.places[bridge]!]!,
        feeds: box.powerFeeds,
        links: grown.topology.endsOf[bridge]!.length,
      };
    })
    .sort(
      (a, b) =>
        (a.toRouter === b.toRouter ? 0 : a.toRouter - b.toRouter) ||
        Number(b.feeds > 1) - Number(a.feeds > 1) ||
        b.links - a.links ||
        (plan.device.get(a.device)!.name < plan.device.get(b.device)!.name ? -1 : 1),
    );
}

/** The segments that a change of a tree could cut, as not every way between their users carries them. */
export const atRisk = derive((plan): readonly string[] =>
  plainVlansOf(plan).flatMap(({ id }) => (missingPorts(plan, id).length > 0 ? [id] : [])),
);
