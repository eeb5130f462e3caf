import { type Place, badInput } from '../plan';
import { type Model, modelById } from '../model/wiring';
import { GATEWAY, type LinkDesign, type SwitchDesign, copperPorts, fibrePorts } from './design';
import { metresTo } from './gather';
import type { World } from './things';

/** How boxes hang together: which port of each, over copper or fibre. */

/** As far as copper reaches (ISO/IEC 11801-1), and as far as multi-mode fibre is laid for 1 Gbit/s (IEEE 802.3 clause 38). */
export const COPPER_REACH = 90;
const MULTI_MODE_REACH = 500;

/** Ports that links may use: fibre ones, and copper ones from the last down, so that those kept for growth come last. */
class FreePorts {
  private readonly fibre: number[];
  private readonly copper: number[];

  constructor(model: Model, used: ReadonlySet<number>, isGateway: boolean) {
    this.fibre = fibrePorts(model).filter((port) => !used.has(port));
    const copper = copperPorts(model).filter((port) => !used.has(port));
    this.copper = isGateway ? copper : copper.reverse();
  }

  get links(): number {
    return this.fibre.length;
  }

  get spare(): number {
    return this.copper.length;
  }

  has(kind: 'fibre' | 'copper'): boolean {
    return this[kind].length > 0;
  }

  take(kind: 'fibre' | 'copper'): number {
    return this[kind].shift()!;
  }
}

/** How far two boxes are apart; what is only assumed decides about copper and fibre and is not recorded. */
interface Way {
  readonly metres: number;
  readonly measured: boolean;
  /** One above the other. */
  readonly sameCase: boolean;
  readonly ring?: boolean;
}
/** From one box to another at the same place. */
export const NEAR: Way = { metres: 0, measured: false, sameCase: true };

/** Draws the links of a design and remembers which ports are left. */
export class Cabling {
  readonly links: LinkDesign[] = [];
  private readonly free = new Map<string, FreePorts>();

  add(key: string, model: Model, used: Iterable<number>): void {
    this.free.set(key, new FreePorts(model, new Set(used), key === GATEWAY));
  }

  fibreLeft(key: string): number {
    return this.free.get(key)!.links;
  }

  /** A link between two boxes, over fibre where both have it left or where copper does not reach. */
  link(a: string, b: string, { metres, measured, sameCase, ring = false }: Way): boolean {
    const [one, other] = [this.free.get(a)!, this.free.get(b)!];
    // The gateway hangs on copper: the fibre of the first switch leads to other places.
    const overFibre = a !== GATEWAY && one.has('fibre') && other.has('fibre');
    const kind = overFibre ? 'fibre' : 'copper';
    if (!overFibre && (metres > COPPER_REACH || !one.has('copper') || !other.has('copper'))) return false;
    const medium = !overFibre
      ? 'copper'
      : sameCase
        ? 'direct-attach'
        : metres > MULTI_MODE_REACH
          ? 'single-mode'
          : 'multi-mode';
    this.links.push({
      key: `link ${a} = ${b}`,
      from: { box: a, port: one.take(kind) },
      to: { box: b, port: other.take(kind) },
      media: medium,
      metres: measured ? metres : null,
      ring,
      bundle: null,
    });
    return true;
  }

  /** Lays a second cable beside a copper link and bundles the two, where both ends have a port that is kept for nothing. */
  double(a: string, b: string, kept: number): boolean {
    const [one, other] = [this.free.get(a)!, this.free.get(b)!];
    const at = this.links.findIndex(({ from, to }) => from.box === a && to.box === b);
    const link = this.links[at];
    if (link?.media !== 'copper' || !one.has('copper') || other.spare <= kept) return false;
    const { key } = link;
    this.links[at] = { ...link, bundle: key };
    this.links.push({
      ...link,
      key: `${key}, second`,
      from: { box: a, port: one.take('copper') },
      to: { box: b, port: other.take('copper') },
      bundle: key,
    });
    return true;
  }
}

/** Boxes that only join others, where those at a place have not enough fibre ports. */
const joining = (place: Place, world: World, number: number): SwitchDesign => ({
  key: `join ${place.id} ${world} ${number}`,
  place,
  world,
  model: modelById.get('switch-24f')!,
  atHand: false,
  plugged: new Map(),
  kept: 0,
});

/** Switches that stand in front of so many others, chained where one is not enough, and which of them each hangs on. */
export function inFront(
  place: Place,
  world: World,
  switches: readonly SwitchDesign[],
  beyond: number,
): { readonly heads: readonly SwitchDesign[]; readonly mine: readonly SwitchDesign[] } {
  const [first] = switches;
  const ways = switches.length - 1 + beyond;
  if (first && ways <= fibrePorts(first.model).length) return { heads: [first], mine: switches.slice(1) };
  const each = fibrePorts(modelById.get('switch-24f')!).length - 2;
  const count = Math.max(1, Math.ceil((switches.length + beyond) / each));
  return {
    heads: Array.from({ length: count }, (_, i) => joining(place, world, i + 1)),
    mine: switches,
  };
}

export const leastUsed = (cabling: Cabling, heads: readonly SwitchDesign[]): SwitchDesign =>
  heads.reduce((best, head) => (cabling.fibreLeft(head.key) > cabling.fibreLeft(best.key) ? head : best));

export function join(cabling: Cabling, a: SwitchDesign, b: SwitchDesign, way: Way): void {
  if (cabling.link(a.key, b.key, way)) return;
  throw badInput(
    `${a.model.name} in ${a.place.name} and ${b.model.name} in ${b.place.name} have no ports left to join them over ${way.metres} m; a box with more fibre ports is needed.`,
    'stock',
  );
}

/** Joins the places: each to the main one, or all in a ring. */
export function joinPlaces(
  cabling: Cabling,
  heads: ReadonlyMap<Place, readonly SwitchDesign[]>,
  main: Place,
  remote: readonly Place[],
  ring: boolean,
): void {
  const head = (place: Place) => heads.get(place)![0]!;
  // Copper does not lead to another building, however near it is.
  const apart = (place: Place) =>
    place.sort === 'other-building' ? Math.max(metresTo(place), COPPER_REACH + 1) : metresTo(place);
  if (!ring) {
    for (const place of remote) {
      const measured = place.metres !== null && place.metres === apart(place);
      const way = { metres: apart(place), measured, sameCase: false };
      join(cabling, leastUsed(cabling, heads.get(main)!), head(place), way);
    }
    return;
  }
  const round = [main, ...remote];
  round.forEach((place, i) => {
    const next = round[(i + 1) % round.length]!;
    // Nobody asked how far two of them are from each other.
    const metres = Math.max(apart(place), apart(next));
    join(cabling, head(place), head(next), { metres, measured: false, sameCase: false, ring: true });
  });
}
