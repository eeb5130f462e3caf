import {
  type Plan,
  type Port,
  type Vlan,
  boxOf,
  derive,
  deriveBy,
  despite,
  equal,
  plainVlansOf,
  vlansOf,
} from '../../plan';
import { enters, ingress, leaves, portsOf } from '../wiring';
import { beginsAlike, changedBetween, fabric, keptFloods, seatsIn } from './reach';

/** Where the first frame of a laptop in a port ends up. */
export interface Landing {
  /** Null when its frames go nowhere or into a VLAN that is no segment. */
  readonly vlan: Vlan | null;
  /** Why it is in no segment, in words that follow "Plug in here and"; empty where it is in one. */
  readonly why: string;
}

const refusedWords = {
  'untagged-refused': 'is not heard: the port takes tagged frames only',
  'no-pvid': 'is not heard: the port puts untagged frames in no VLAN',
  'tagged-refused': 'is not heard: the port refuses tagged frames',
  'not-a-member': 'is not heard: the port is no member of its own PVID',
  blocked: 'is not heard: a spanning tree or a ring blocks the port',
} as const;

const untaggedFlood = keptFloods((port: string) => ({ port, tag: 0 }), 'boxes');
/** Where an untagged frame goes that arrives at a port, by its number on the wire; or why nowhere. */
const untaggedAt = deriveBy(
  (plan, id: string): { readonly vid: number } | { readonly why: string } => {
    const { bridges, seats } = fabric(plan);
    const { bridge: at, port } = seats.get(id)!;
    const { box, facts } = bridges[at]!;
    if (box.vlanAware) {
      const entered = ingress(facts[port]!, 0);
      return 'refused' in entered ? { why: `your laptop ${refusedWords[entered.refused]}` } : entered;
    }
    // A box without VLANs: the laptop is where the first box that has VLANs puts untagged frames.
    const first = [...untaggedFlood(plan, id).came.keys()].find(
      (key) => bridges[Math.floor(key / 4096)]!.box.vlanAware,
    );
    return first === undefined
      ? { why: 'you reach only what is plugged into this box and its like' }
      : { vid: first % 4096 };
  },
  equal,
  despite(
    fabric,
    (_at, was, is, id: string) =>
      changedBetween(was, is) !== null && beginsAlike({ port: id, tag: 0 }, was, is),
  ),
);
const segmentOfVid = derive(
  (plan): ReadonlyMap<number, string> =>
    // Of two with one number the first counts.
    new Map([...plainVlansOf(plan)].reverse().map(({ id, vid }) => [vid, id])),
);

/** The segment that an untagged frame is in which arrives at a port: computed by letting its first broadcast run. */
export function landsIn(plan: Plan, port: Port): Landing {
  const nothing = (why: string): Landing => ({ vlan: null, why });
  if (!seatsIn(plan).has(port.id))
    return nothing('there is nothing to plug into: this is the socket of a device');
  if (port.number === 0) return nothing('there is nothing to plug into: this is the inside of the box');
  if (port.defective) return nothing('nothing happens: the port is marked defective');
  if (port.role === 'parked' || !port.enabled) return nothing('nothing happens: the port is parked');
  if (port.role === 'uplink') return nothing('you stand outside: the port faces a provider');
  const landing = untaggedAt(plan, port.id);
  if ('why' in landing) return nothing(landing.why);
  const segment = segmentOfVid(plan).get(landing.vid);
  if (segment === undefined)
    return nothing(
      `you land in VLAN ${landing.vid}, which is no segment of this site${port.role === 'undecided' ? '; nobody decided this port' : ''}`,
    );
  return { vlan: plan.vlan.get(segment)!, why: '' };
}

/**
 * The VLANs that a port takes frames of or sends them in, tagged or not: whoever is plugged in there and tags is in all of them. Of a
 * box without VLANs none can be told apart.
 */
export function vidsAt(plan: Plan, id: string): number[] {
  const { bridges, seats } = fabric(plan);
  const seat = seats.get(id);
  const bridge = seat && bridges[seat.bridge]!;
  if (!seat || !bridge?.box.vlanAware) return [];
  return vlansOf(plan)
    .map(({ vid }) => vid)
    .filter((vid) =>
      [0, vid].some((tag) => {
        const entered = enters(bridge, seat.port, tag);
        return (entered && 'vid' in entered && entered.vid === vid) || leaves(bridge, seat.port, vid) === tag;
      }),
    );
}

/** The port of a box into which an end device is plugged; undefined while it is not. */
export function pluggedInto(plan: Plan, device: string): Port | undefined {
  if (boxOf(plan, device)) return undefined;
  const { links, seats } = fabric(plan);
  for (const port of portsOf(plan, device))
    for (const link of links.get(port.id) ?? []) if (seats.has(link.to)) return plan.port.get(link.to);
  return undefined;
}
