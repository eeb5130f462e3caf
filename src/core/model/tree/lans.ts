import { type Fabric, inwardPorts, type WiredPort } from '../wiring';

/** Which boxes hear each other's messages of spanning trees: LANs made of links, bundles, and boxes that pass them on. */

/** What a port does with such messages: sends and hears them itself, passes them on like any frame, or neither. */
export type Part = 'own' | 'through' | 'none';

/** A port, or the ports of a bundle as one. */
export interface LanPort {
  /** Place of its box in the fabric. */
  readonly bridge: number;
  /** Ids of the ports; the one with the lowest number first. */
  readonly ports: readonly string[];
  readonly number: number;
  /** Mbit/s of the link, all of a bundle together. */
  readonly speed: number;
}

export interface SharedLan {
  readonly ports: readonly LanPort[];
}

/** A bundle counts as one port where the other ends are in one bundle too. */
function bundleOf({ links, seats, bridges }: Fabric, port: WiredPort): string | null {
  if (port.lag === null) return null;
  for (const link of links.get(port.id) ?? []) {
    const seat = seats.get(link.to);
    const far = seat && bridges[seat.bridge]!.ports[seat.port]!.lag;
    if (far) return `${port.lag} ${far}`;
  }
  return null;
}

/**
 * The LANs on which at least two ports, or two ends of one box, hear each other. `part` says what a port does; `joined` whether
 * what leaves one end of a link gets in at the other.
 */
export function lansOf(
  fabric: Fabric,
  part: (bridge: number, index: number) => Part,
  joined: (from: { bridge: number; port: number }, to: { bridge: number; port: number }) => boolean,
): SharedLan[] {
  const { bridges, seats, links } = fabric;
  const parts: number[] = [];
  const root = (at: number): number => {
    while (parts[at] !== at) at = parts[at] = parts[parts[at]!]!;
    return at;
  };
  const made = new Map<string, number>();
  const placeOf = (key: string): number => {
    let place = made.get(key);
    if (place === undefined) {
      made.set(key, (place = parts.length));
      parts.push(place);
    }
    return place;
  };
  const join = (a: number, b: number) => {
    const [x, y] = [root(a), root(b)];
    if (x !== y) parts[y] = x;
  };
  const members = new Map<string, { bridge: number; at: number; ports: WiredPort[]; speed: number }>();
  const inward = inwardPorts(fabric);
  bridges.forEach((bridge, at) => {
    for (const index of inward[at]!) {
      const does = part(at, index);
      if (does === 'none') continue;
      const port = bridge.ports[index]!;
      const here = placeOf(port.id);
      if (does === 'through') join(placeOf(`box ${bridge.device}`), here);
      let open = false;
      let speed = port.speed;
      for (const link of links.get(port.id) ?? []) {
        const seat = seats.get(link.to);
        if (!seat || part(seat.bridge, seat.port) === 'none') continue;
        if (!joined({ bridge: at, port: index }, seat)) continue;
        join(here, placeOf(link.to));
        speed = Math.min(speed, bridges[seat.bridge]!.ports[seat.port]!.speed);
        open = true;
      }
      if (!open || does !== 'own') continue;
      const key = bundleOf(fabric, port) ?? port.id;
      const known = members.get(key);
      if (known) {
        join(known.at, here);
        known.ports.push(port);
        known.speed += speed;
      } else members.set(key, { bridge: at, at: here, ports: [port], speed });
    }
  });
  const lans = new Map<number, LanPort[]>();
  for (const { bridge, at, ports, speed } of members.values()) {
    const own = ports.sort((a, b) => a.number - b.number);
    const port = { bridge, ports: own.map(({ id }) => id), number: own[0]!.number, speed };
    const on = lans.get(root(at));
    if (on) on.push(port);
    else lans.set(root(at), [port]);
  }
  return [...lans.values()].map((ports) => ({ ports }));
}
