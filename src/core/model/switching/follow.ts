import type { Plan, Device, Port } from '../../plan';
import {
  portsTitle,
  type Came,
  type Flood,
  type Heard,
  type State,
  flood,
  stateKey,
  type Tag,
  type WiredPort,
  portsOf,
  wiredPort,
} from '../wiring';
import { missingPorts } from './carry';
import { landsIn } from './landing';
import { type Walked, hearsTag, walkTo } from './walk';
import { fabric } from './reach';

/** One box on the way of a frame: in by which port with which tag, in which VLAN inside, out by which with which. */
export interface Hop {
  readonly device: string;
  readonly entered: WiredPort | null;
  readonly tagIn: Tag;
  readonly vid: number;
  readonly left: WiredPort | null;
  readonly tagOut: Tag;
}

/** The way a flood first took to a state, and out of it by a port. */
export function hopsTo(
  plan: Plan,
  covered: Flood,
  last: State,
  out: { readonly left: WiredPort | null; readonly tagOut: Tag },
): Hop[] {
  const { bridges } = fabric(plan);
  const hops: Hop[] = [];
  let { left, tagOut } = out;
  for (let state: State | null = last; state !== null;) {
    const how: Came = covered.came.get(stateKey(state))!;
    const { device, ports } = bridges[state.bridge]!;
    const entered = how.port === null ? null : ports[how.port]!;
    hops.unshift({ device, entered, tagIn: how.tag, vid: state.vid, left, tagOut });
    left = how.link ? wiredPort(plan, how.link.from) : null;
    tagOut = how.tag;
    state = how.from;
  }
  return hops;
}

/** The way of what somebody heard. */
export const hopsOf = (plan: Plan, covered: Flood, end: Heard): Hop[] =>
  end.from === null
    ? []
    : hopsTo(plan, covered, end.from, {
        left: wiredPort(plan, end.link?.from ?? end.port),
        tagOut: end.tag,
      });

/** A shortest way of a broadcast from a port of a box to whoever hears it at `target`; null when nobody does. */
export function follow(plan: Plan, start: string, tag: Tag, target: string): Hop[] | null {
  const covered = flood(fabric(plan), { port: start, tag });
  const end = covered.heard.find((heard) => heard.port === target);
  return end?.from ? hopsOf(plan, covered, end) : null;
}

/** The way of a laptop's untagged frame to a device, or how far it gets and what stops it (`why`, else null). */
export function followTo(plan: Plan, start: Port, device: Device): Walked {
  for (const target of portsOf(plan, device.id)) {
    const hops = follow(plan, start.id, 0, target.id);
    const last = hops?.at(-1);
    if (last?.left && hearsTag(plan, target, last.left, last.tagOut)) return { hops: hops!, why: null };
  }
  const { hops, why } = walkTo(plan, start, device);
  if (why === null) return { hops, why };
  const { vlan } = landsIn(plan, start);
  const missing = vlan ? missingPorts(plan, vlan.id) : [];
  const mend = missing.length
    ? `. ${portsTitle(plan, missing)} would have to carry ${vlan!.vid} ${vlan!.code}`
    : '';
  return { hops, why: `No frame from here gets to ${device.name}: ${why}${mend}.` };
}
