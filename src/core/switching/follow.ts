import type { Plan } from '../plan/plan';
import type { Port } from '../plan/records';
import { type Came, type Flood, type State, flood, stateKey } from './fabric';
import type { Tag } from './facts';
import { fabric } from './users';

/** One box on the way of a frame: in by which port with which tag, in which VLAN inside, out by which with which. */
export interface Hop {
  readonly device: string;
  readonly entered: Port | null;
  readonly tagIn: Tag;
  readonly vid: number;
  readonly left: Port | null;
  readonly tagOut: Tag | null;
}

/** The shortest found way of a broadcast from a port of a box to whoever hears it at `target`; null when it does not. */
export function follow(plan: Plan, start: string, tag: Tag, target: string): Hop[] | null {
  const made = fabric(plan);
  return wayTo(plan, flood(made, { port: start, tag }), start, target);
}

export function wayTo(plan: Plan, covered: Flood, start: string, target: string): Hop[] | null {
  const { bridges } = fabric(plan);
  const end = covered.heard.find((heard) => heard.port === target);
  if (!end?.from) return null;
  const hops: Hop[] = [];
  let state: State | null = end.from;
  let left: Port | null = plan.port.get(end.link?.from ?? end.port) ?? null;
  let tagOut: Tag | null = end.tag;
  while (state !== null) {
    const how: Came = covered.came.get(stateKey(state))!;
    const bridge = bridges[state.bridge]!;
    const entered = how.port === null ? null : bridge.ports[how.port]!;
    hops.unshift({
      device: bridge.device,
      entered: entered ?? plan.port.get(start) ?? null,
      tagIn: how.tag,
      vid: state.vid,
      left,
      tagOut,
    });
    left = how.link ? (plan.port.get(how.link.from) ?? null) : null;
    tagOut = how.tag;
    state = how.from;
  }
  return hops;
}
