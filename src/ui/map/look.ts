import { carries, portsOf } from '@/core/model/wiring';
import { type Plan, boxOf } from '@/core/plan';
import type { MapModel } from '@/core/model/map';

/** What the map shows besides boxes and cables; every layer adds to it. Cables and sockets go by their ports, `struck` and `words` devices. */
export interface MapLook {
  /** The segment that is followed: its colour, the boxes in it and the ports that carry it. */
  readonly colour: string | null;
  readonly lit: ReadonlySet<string>;
  readonly carrying: ReadonlySet<string>;
  /** A way that frames take. */
  readonly along: ReadonlySet<string>;
  /** Where a tree or a ring stops frames. */
  readonly blocked: ReadonlySet<string>;
  /** Cables that are out, and devices that are cut off. */
  readonly pulled: ReadonlySet<string>;
  readonly struck: ReadonlySet<string>;
  /** A word at a box instead of what it is. */
  readonly words: ReadonlyMap<string, string>;
}

const NONE: ReadonlySet<string> = new Set();
export const PLAIN: MapLook = {
  colour: null,
  lit: NONE,
  carrying: NONE,
  along: NONE,
  blocked: NONE,
  pulled: NONE,
  struck: NONE,
  words: new Map(),
};

/** The boxes and ports in a segment; a box that does not look at tags carries whatever the port at the other end does. */
export function followedLook(
  plan: Plan,
  { boxes, cables }: MapModel,
  vlan: string,
): Pick<MapLook, 'colour' | 'lit' | 'carrying'> {
  const member = (id: string) => {
    const port = plan.port.get(id);
    return port !== undefined && carries(port, vlan);
  };
  const plain = (device: string) => boxOf(plan, device)?.vlanAware === false;
  const lit = new Set(
    boxes.flatMap(({ id }) => (portsOf(plan, id).some((port) => carries(port, vlan)) ? [id] : [])),
  );
  const carrying = new Set<string>();
  for (const { from, to } of cables)
    for (const [here, there] of [
      [from, to],
      [to, from],
    ] as const)
      if (member(here.port) || (plain(here.box) && member(there.port))) carrying.add(here.port);
  return { colour: plan.vlan.get(vlan)!.colour, lit, carrying };
}

const joined = (sets: readonly ReadonlySet<string>[]): ReadonlySet<string> =>
  new Set(sets.flatMap((set) => [...set]));

/** All layers in one picture. Where two have a word for a box, both are said. */
export function together(looks: readonly Partial<MapLook>[]): MapLook {
  const words = new Map<string, string>();
  for (const look of looks)
    for (const [id, word] of look.words ?? [])
      words.set(id, words.has(id) ? `${words.get(id)}, ${word}` : word);
  const all = (name: 'lit' | 'carrying' | 'along' | 'blocked' | 'pulled' | 'struck') =>
    joined(looks.flatMap((look) => look[name] ?? []));
  return {
    colour: looks.find(({ colour }) => colour)?.colour ?? null,
    lit: all('lit'),
    carrying: all('carrying'),
    along: all('along'),
    blocked: all('blocked'),
    pulled: all('pulled'),
    struck: all('struck'),
    words,
  };
}
