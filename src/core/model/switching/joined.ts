import { derive, memo, type Plan } from '../../plan';
import { type VidSet, type Fabric, type State, enters, inwardPorts, leaves, vidsById } from '../wiring';
import { fabric } from './reach';
import { isEvenLink } from './reverse-flood';

/** Which boxes are on one wire, for all VLANs at once: what a flood tells for one VLAN, without the way. */

export interface Joined {
  /** Do frames get from one place to the other, and back? */
  readonly together: (a: State, b: State) => boolean;
}

/** The VLANs of a plan by number, 32 to a word. */
class Vids {
  readonly list: readonly number[];
  readonly places: ReadonlyMap<number, number>;
  readonly words: number;

  constructor(list: Iterable<number>) {
    this.list = [...new Set(list)];
    this.places = new Map(this.list.map((vid, at) => [vid, at]));
    this.words = Math.ceil(this.list.length / 32);
  }

  readonly bitsOf = memo((set: VidSet): Int32Array => {
    const bits = new Int32Array(this.words);
    this.list.forEach((vid, at) => {
      if (set.has(vid)) bits[at >> 5]! |= 1 << (at & 31);
    });
    return bits;
  });
}
const vidsOf = derive((plan) => new Vids(vidsById(plan).values()));

/**
 * The parts each VLAN of the plan falls into. Null where links change VLANs on the way, treat their two directions unlike, or
 * a box that knows none stands between others: there only a flood tells.
 */
export const joinedIn = derive((plan): Joined | null => join(plan, fabric(plan)), Object.is);

function join(plan: Plan, fabric: Fabric): Joined | null {
  const { bridges, seats, links } = fabric;
  const inward = inwardPorts(fabric);
  /** The one link of a box without VLANs at the edge. */
  const wayIn = (at: number) => {
    const ways = inward[at]!.flatMap((index) =>
      (links.get(bridges[at]!.ports[index]!.id) ?? []).map(({ to }) => ({ index, seat: seats.get(to) })),
    );
    return ways.length === 1 ? ways[0]! : null;
  };
  const between = bridges.some(
    ({ box }, at) =>
      !box.vlanAware &&
      inward[at]!.length > 0 &&
      bridges[wayIn(at)?.seat?.bridge ?? at]!.box.vlanAware === false,
  );
  if (between) return null;
  const vids = vidsOf(plan);
  const size = bridges.length;
  const parts = new Int32Array(vids.list.length * size);
  for (let at = 0; at < parts.length; at++) parts[at] = at;
  const root = (start: number): number => {
    let at = start;
    while (parts[at] !== at) at = parts[at] = parts[parts[at]!]!;
    return at;
  };
  const passing = new Int32Array(vids.words);
  for (const [from, ports] of inward.entries())
    for (const index of ports)
      for (const { to } of links.get(bridges[from]!.ports[index]!.id) ?? []) {
        const seat = seats.get(to);
        // Each link once.
        if (!seat || seat.bridge < from) continue;
        const [near, beyond] = [bridges[from]!, bridges[seat.bridge]!];
        const [own, far] = [near.facts[index], beyond.facts[seat.port]];
        if (!own || !far) continue;
        if (!isEvenLink(own, near.box.vlanAware, far, beyond.box.vlanAware)) return null;
        if (!near.box.vlanAware || !beyond.box.vlanAware) continue;
        passing.set(vids.bitsOf(own.tagged));
        const plain = own.untagged === null ? undefined : vids.places.get(own.untagged);
        if (plain !== undefined) passing[plain >> 5]! |= 1 << (plain & 31);
        for (const { blocked } of [own, far])
          if (blocked) {
            const stopped = vids.bitsOf(blocked);
            for (let word = 0; word < passing.length; word++) passing[word]! &= ~stopped[word]!;
          }
        for (let word = 0; word < passing.length; word++)
          for (let left = passing[word]!; left !== 0; left &= left - 1) {
            const row = ((word << 5) + 31 - Math.clz32(left & -left)) * size;
            const [a, b] = [root(row + from), root(row + seat.bridge)];
            if (a !== b) parts[b] = a;
          }
      }
  /** Where frames of a box without VLANs come to be in one; the place itself in any other. */
  const landed = (state: State): State | null => {
    if (bridges[state.bridge]!.box.vlanAware) return state;
    const way = wayIn(state.bridge);
    const tag = way && leaves(bridges[state.bridge]!, way.index, state.vid);
    if (tag === null || !way?.seat) return null;
    const entered = enters(bridges[way.seat.bridge]!, way.seat.port, tag);
    return entered && 'vid' in entered ? { bridge: way.seat.bridge, vid: entered.vid } : null;
  };
  return {
    together: (a, b) => {
      if (a.bridge === b.bridge && a.vid === b.vid) return true;
      const [from, to] = [landed(a), landed(b)];
      if (!from || !to || from.vid !== to.vid) return false;
      const at = vids.places.get(from.vid);
      if (at === undefined) return from.bridge === to.bridge;
      return root(at * size + from.bridge) === root(at * size + to.bridge);
    },
  };
}
