import { type Need, type Place, type Stock, badInput } from '../plan';
import { type Model, type PortBlock, modelById, placesOf, reservedFor } from '../model/wiring';
import { type Brief, grownNeed, insideGroups, metresTo, placeOf } from './gather';
import { type World, classOf, things, worldOf } from './things';

/** Which boxes a brief needs, where they stand and how they hang together. Nothing of a plan is written yet. */

/** A socket that something is to be plugged into. */
export interface Wanted {
  /** Null for what is still to come: growth and spare. */
  readonly for: { readonly need: Need; readonly number: number } | { readonly accessPoint: string } | null;
  /** The PoE class it asks for. */
  readonly poeClass: number | null;
}

export interface SwitchDesign {
  readonly key: string;
  readonly place: Place;
  readonly world: World;
  readonly model: Model;
  /** It comes out of what is at hand. */
  readonly atHand: boolean;
  /** What is plugged into it, by port. */
  readonly plugged: Map<number, Wanted>;
  /** Copper ports that are kept for growth and spare. */
  kept: number;
}

export interface AccessPointDesign {
  readonly key: string;
  readonly place: Place;
  readonly world: World;
  readonly model: Model;
  readonly atHand: boolean;
}

/** A cable between two boxes; the ports are numbers on the case. */
export interface LinkDesign {
  readonly key: string;
  readonly from: { readonly box: string; readonly port: number };
  readonly to: { readonly box: string; readonly port: number };
  readonly media: 'copper' | 'multi-mode' | 'single-mode' | 'direct-attach';
  readonly metres: number | null;
  /** It closes a ring of places. */
  readonly ring: boolean;
}

export interface Hardware {
  readonly gateway: {
    readonly model: Model;
    readonly atHand: boolean;
    /** Ports that something is plugged into already. */
    readonly taken: ReadonlySet<number>;
  };
  /** The layer-3 switch between the gateway and the rest; null where the gateway routes everything. */
  readonly core: Model | null;
  readonly switches: readonly SwitchDesign[];
  readonly accessPoints: readonly AccessPointDesign[];
  readonly links: readonly LinkDesign[];
  /** The first switch of the main place, and the one that takes over as root. */
  readonly roots: readonly { readonly key: string; readonly priority: number }[];
  readonly decisions: readonly Decision[];
}

/** Something that was decided, and why. */
export interface Decision {
  readonly what: string;
  readonly why: string;
}

export const GATEWAY = 'gateway';
export const CORE = 'core';
/** As far as copper reaches (ISO/IEC 11801-1), and as far as multi-mode fibre is laid for 1 Gbit/s (IEEE 802.3 clause 38). */
const COPPER_REACH = 90;
const MULTI_MODE_REACH = 500;
/** Ports that a place has to need before a switch is put there. */
const WORTH_A_SWITCH = 5;
/** Clients one access point carries well, and the square metres it covers indoors. */
const CLIENTS_EACH = 30;
const COVERS = 150;

const media = (model: Model, kind: PortBlock['media']): number[] =>
  placesOf(model.blocks)
    .filter(({ number, block }) => block.media === kind && !model.uplinks.includes(number))
    .map(({ number }) => number);
export const copperPorts = (model: Model): number[] => media(model, 'copper');
const fibrePorts = (model: Model): number[] => media(model, 'fibre');
const powered = (model: Model): boolean => model.blocks.some(({ poeClass }) => poeClass !== null);

/** A model for boxes at hand: as a switch or gateway of its size usually is. */
function modelAtHand(stock: Stock): Model {
  const base = modelById.get(
    stock.sort === 'gateway' ? 'gateway-6' : stock.sort === 'access-point' ? 'ap-1' : 'switch-24',
  )!;
  const powers = stock.sort === 'switch' && stock.poeBudget !== null;
  const poeClass = stock.sort === 'access-point' || powers ? 4 : null;
  const block = (count: number, kind: PortBlock['media']): PortBlock[] =>
    count === 0
      ? []
      : [
          {
            count,
            media: kind,
            speed: 1000,
            rows: count > 8 ? 2 : 1,
            poeClass: kind === 'copper' ? poeClass : null,
          },
        ];
  return {
    ...base,
    id: `stock ${stock.id}`,
    name: stock.model,
    vlanAware: stock.vlanAware,
    poeBudget: stock.sort === 'switch' ? stock.poeBudget : null,
    blocks: [...block(stock.copper, 'copper'), ...block(stock.fibre, 'fibre')],
    ...(stock.vlanAware ? {} : { vlanLimit: null, spanningTree: 'none', snooping: false, dot1x: false }),
  };
}

/** Boxes at hand that are not used yet, each one by itself. */
class AtHand {
  private readonly left: { readonly stock: Stock; readonly model: Model; used: boolean }[];

  constructor(stock: readonly Stock[]) {
    this.left = stock.flatMap((one) =>
      Array.from({ length: one.count }, () => ({ stock: one, model: modelAtHand(one), used: false })),
    );
  }

  /** Those of a sort that may stand in a place and do there; what belongs there comes first. */
  of(sort: Stock['sort'], place: Place, flat: boolean) {
    return this.left
      .filter(
        ({ used, stock }) =>
          !used &&
          stock.sort === sort &&
          (stock.vlanAware || flat) &&
          (stock.place === null || stock.place === place.id),
      )
      .sort((a, b) => Number(b.stock.place !== null) - Number(a.stock.place !== null));
  }

  unused(): readonly Stock[] {
    return [...new Set(this.left.filter(({ used }) => !used).map(({ stock }) => stock))];
  }
}

const isFlat = ({ choice }: Brief): boolean => choice.separation === 'flat';

/** Switches that may be bought for a place, the smallest first. */
function shelfFor(brief: Brief, place: Place, wanted: readonly Wanted[]): readonly Model[] {
  // Those for the rail are too slow for an access point.
  const hasAir = wanted.some((one) => one.for !== null && 'accessPoint' in one.for);
  const ids =
    brief.site.kind === 'industrial' && place.sort !== 'main' && !hasAir
      ? ['rail-8', 'rail-8p', 'switch-24', 'switch-24p', 'switch-48p']
      : ['switch-8p', 'switch-24', 'switch-24p', 'switch-48p'];
  return ids.map((id) => modelById.get(id)!);
}

/** What of a list a switch takes: what asks for power first, as far as its budget goes, then the rest. */
function taken(model: Model, ports: number, wanted: readonly Wanted[]): Wanted[] {
  const all: Wanted[] = [];
  let watts = model.poeBudget ?? 0;
  for (const one of wanted) {
    if (all.length === ports) break;
    if (one.poeClass !== null) {
      if (!powered(model) || reservedFor(one.poeClass) > watts) continue;
      watts -= reservedFor(one.poeClass);
    }
    all.push(one);
  }
  return all;
}

/** Copper ports of a switch for things: all, but one for the way up where it has no fibre, and one for the gateway. */
const room = (model: Model, gateway: boolean): number =>
  copperPorts(model).length - (fibrePorts(model).length === 0 ? 1 : 0) - (gateway ? 1 : 0);
/** As many switches without fibre as a box that joins others has copper for. */
const MOST_WITHOUT_FIBRE = 3;

/** Switches that take everything wanted at a place: of those at hand first, then as few and as small as do. */
function switchesFor(
  brief: Brief,
  hand: AtHand,
  place: Place,
  world: World,
  list: readonly Wanted[],
): SwitchDesign[] {
  const switches: SwitchDesign[] = [];
  let wanted = [...list].sort((a, b) => (b.poeClass ?? 0) - (a.poeClass ?? 0));
  const shelf = shelfFor(brief, place, list);
  const usable = (model: Model) =>
    fibrePorts(model).length > 0 ||
    switches.filter((one) => fibrePorts(one.model).length === 0).length < MOST_WITHOUT_FIBRE;
  while (wanted.length > 0) {
    const own = hand.of('switch', place, isFlat(brief)).filter(({ model }) => usable(model));
    const ports = (model: Model) => room(model, switches.length === 0 && place === brief.places[0]);
    const fits = (model: Model) => taken(model, ports(model), wanted).length;
    const best = <T extends { readonly model: Model }>(all: readonly T[]): T | undefined =>
      [...all]
        .filter(({ model }) => fits(model) > 0)
        .sort(
          (a, b) =>
            Math.min(fits(b.model), wanted.length) - Math.min(fits(a.model), wanted.length) ||
            ports(a.model) - ports(b.model) ||
            (a.model.poeBudget ?? 0) - (b.model.poeBudget ?? 0),
        )[0];
    const mine = best(own);
    const chosen = mine ?? best(shelf.map((model) => ({ model })));
    if (!chosen) {
      const { poeClass } = wanted[0]!;
      throw badInput(`No switch on the shelf powers class ${poeClass}; give it a power supply.`, 'power');
    }
    if (mine) mine.used = true;
    const { model } = chosen;
    const here = taken(model, ports(model), wanted);
    const isHere = new Set(here);
    wanted = wanted.filter((one) => !isHere.has(one));
    const plugged = new Map<number, Wanted>();
    const real = here.filter((one) => one.for !== null);
    const sockets = copperPorts(model);
    real.forEach((one, i) => plugged.set(sockets[i]!, one));
    switches.push({
      key: `switch ${place.id} ${world} ${switches.length + 1}`,
      place,
      world,
      model,
      atHand: mine !== undefined,
      plugged,
      kept: here.length - real.length,
    });
  }
  return switches;
}

/** Where things of a place are cabled to: to a switch there, or to the main place where a few are near. */
function cabledTo(brief: Brief, place: Place, ports: number): Place {
  const [main] = brief.places;
  if (place === main || place.sort === 'other-building' || metresTo(place) > COPPER_REACH) return place;
  return ports < WORTH_A_SWITCH ? main! : place;
}

const wiredAt = (brief: Brief, place: Place): Need[] =>
  brief.needs.filter((need) => need.link === 'wired' && placeOf(brief, need) === place);

/** Access points of a place and a world: enough for its clients and its area. */
function accessPointsAt(brief: Brief, hand: AtHand, place: Place, world: World): AccessPointDesign[] {
  const clients = brief.needs
    .filter((need) => need.link === 'wireless' && placeOf(brief, need) === place)
    .filter((need) => worldIn(brief, need) === world)
    .reduce((sum, need) => sum + grownNeed(brief.site, need), 0);
  if (clients === 0) return [];
  const count = Math.max(Math.ceil(clients / CLIENTS_EACH), Math.ceil((place.area ?? 0) / COVERS), 1);
  return Array.from({ length: count }, (_, i) => {
    const mine = hand.of('access-point', place, isFlat(brief))[0];
    if (mine) mine.used = true;
    const model = mine?.model ?? modelById.get('ap-1')!;
    const key = `ap ${place.id} ${world} ${i + 1}`;
    return { key, place, world, model, atHand: mine !== undefined };
  });
}

const worldIn = ({ choice }: Brief, { thing }: Need): World =>
  choice.separation === 'separate' ? worldOf(things[thing].purpose) : '';

/** What has to be plugged in at a place for a world, access points among it, with what grows and what is spare. */
function wantedAt(brief: Brief, needs: readonly Need[], points: readonly AccessPointDesign[]): Wanted[] {
  const { site } = brief;
  const now: Wanted[] = [
    ...points.map(({ key, model }): Wanted => {
      const poeClass = model.blocks[0]?.poeClass ?? 4;
      return { for: { accessPoint: key }, poeClass };
    }),
    ...needs.flatMap((need) =>
      Array.from({ length: need.count }, (_, i): Wanted => ({
        for: { need, number: i + 1 },
        poeClass: classOf(need),
      })),
    ),
  ];
  const later = needs.flatMap((need) =>
    Array.from({ length: grownNeed(site, need) - need.count }, (): Wanted => ({
      for: null,
      poeClass: classOf(need),
    })),
  );
  const spare = Math.ceil(((now.length + later.length) * site.spare) / 100);
  return [...now, ...later, ...Array.from({ length: spare }, (): Wanted => ({ for: null, poeClass: null }))];
}

/** Ports that links may use: fibre ones, and copper ones from the last down, so that those kept for growth come last. */
class FreePorts {
  private readonly fibre: number[];
  private readonly copper: number[];

  constructor(model: Model, used: ReadonlySet<number>, isGateway: boolean) {
    this.fibre = fibrePorts(model);
    const copper = copperPorts(model).filter((port) => !used.has(port));
    this.copper = isGateway ? copper : copper.reverse();
  }

  get links(): number {
    return this.fibre.length;
  }

  has(kind: 'fibre' | 'copper'): boolean {
    return this[kind].length > 0;
  }

  take(kind: 'fibre' | 'copper'): number {
    return this[kind].shift()!;
  }
}

/** Draws the links of a design and remembers which ports are left. */
class Cabling {
  readonly links: LinkDesign[] = [];
  private readonly free = new Map<string, FreePorts>();

  add(key: string, model: Model, used: Iterable<number>): void {
    this.free.set(key, new FreePorts(model, new Set(used), key === GATEWAY));
  }

  fibreLeft(key: string): number {
    return this.free.get(key)!.links;
  }

  /** A link between two boxes, over fibre where both have it left or where copper does not reach. */
  link(a: string, b: string, metres: number, sameCase: boolean, ring = false): boolean {
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
      metres: sameCase ? null : metres,
      ring,
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
function inFront(
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

/** It passes what it routes: a filter that forgets would stop the answers of what the gateway let through. */
const coreModel: Model = { ...modelById.get('layer3-24')!, filter: 'none' };

/** A gateway that stands in the plan with its ports, and which of them are taken. */
export interface Standing {
  readonly model: Model;
  readonly taken: ReadonlySet<number>;
}

/** Works out the boxes of a brief and how they are joined. */
export function hardwareOf(brief: Brief, standing: Standing | null = null): Hardware {
  const hand = new AtHand(brief.stock);
  const decisions: Decision[] = [];
  const [main] = brief.places;
  const worlds: readonly World[] =
    brief.choice.separation === 'separate'
      ? (['business', 'plant', 'visitors'] as const).filter((world) =>
          brief.needs.some((need) => worldIn(brief, need) === world),
        )
      : [''];
  const accessPoints: AccessPointDesign[] = [];
  const switches: SwitchDesign[] = [];
  const cabling = new Cabling();
  const roots: { key: string; priority: number }[] = [];
  const gateway = standing
    ? { model: standing.model, atHand: true, taken: standing.taken }
    : { ...gatewayFor(brief, hand, worlds.length, decisions), taken: new Set<number>() };
  if (standing)
    decisions.push({
      what: `The gateway stays: ${standing.model.name}`,
      why: 'it stands in the plan already',
    });
  const lines = linePorts(gateway, brief.lines.length);
  if (lines.length < brief.lines.length)
    throw badInput(
      `${gateway.model.name} has ${lines.length} ports left for ${brief.lines.length} Internet connections; free some, or leave connections out.`,
      'line',
    );
  cabling.add(GATEWAY, gateway.model, [...gateway.model.uplinks, ...lines, ...gateway.taken]);
  const core = insideGroups(brief).size > 0 ? coreModel : null;
  if (core) {
    cabling.add(CORE, core, []);
    cabling.link(GATEWAY, CORE, 0, true);
    roots.push({ key: CORE, priority: 4096 });
    decisions.push({
      what: `${core.name} between the gateway and the switches`,
      why: 'staff, servers and telephones are routed at full speed; it filters nothing, so all others stay with the gateway',
    });
  }
  const above = core ? CORE : GATEWAY;
  for (const world of worlds) {
    const there = new Map<Place, Wanted[]>();
    const byPlace = brief.places.map((place) => {
      const points = accessPointsAt(brief, hand, place, world);
      accessPoints.push(...points);
      const needs = wiredAt(brief, place).filter((need) => worldIn(brief, need) === world);
      return { place, wanted: wantedAt(brief, needs, points), points };
    });
    for (const { place, wanted, points } of byPlace) {
      if (wanted.length === 0) continue;
      const at = cabledTo(brief, place, wanted.length);
      if (at !== place)
        decisions.push({
          what: `${place.name} has no switch`,
          why: `${wanted.length} ports ${metresTo(place)} m away are cabled to ${at.name}`,
        });
      else if (points.length > 0 && place.area !== null)
        decisions.push({
          what: `${points.length} access point${points.length === 1 ? '' : 's'} in ${place.name}`,
          why: `${place.area} m² at ${COVERS} m² each, and at most ${CLIENTS_EACH} clients on one`,
        });
      there.set(at, [...(there.get(at) ?? []), ...wanted]);
    }
    // Something has to stand behind the gateway even where nothing is plugged in at the main place.
    if (!there.has(main!)) there.set(main!, [{ for: null, poeClass: null }]);
    const remote = [...there.keys()].filter((place) => place !== main);
    const ring = brief.choice.backbone === 'ring' && remote.length > 1;
    const order = [main!, ...remote];
    const heads = new Map<Place, readonly SwitchDesign[]>();
    for (const place of order) {
      const made = switchesFor(brief, hand, place, world, there.get(place)!);
      const beyond = place === main ? (ring ? 2 : remote.length) + (core ? 1 : 0) : ring ? 2 : 1;
      const front = inFront(place, world, made, beyond);
      const all = [...front.heads.filter((head) => !made.includes(head)), ...made];
      for (const one of all) cabling.add(one.key, one.model, one.plugged.keys());
      switches.push(...all);
      heads.set(place, front.heads);
      decisions.push(...boughtAt(place, all));
      front.heads.slice(1).forEach((head, i) => join(cabling, front.heads[i]!, head, 0, true));
      front.mine.forEach((one) => join(cabling, leastUsed(cabling, front.heads), one, 0, true));
    }
    const [root] = heads.get(main!)!;
    roots.push({ key: root!.key, priority: core ? 8192 : 4096 });
    if (!cabling.link(above, root!.key, 0, true))
      throw badInput(`${gateway.model.name} has no port left for ${root!.model.name}.`, 'stock');
    joinPlaces(cabling, heads, main!, remote, ring);
    const second = ring ? heads.get(remote[0]!)![0] : undefined;
    if (second && !core) roots.push({ key: second.key, priority: 8192 });
    if (ring)
      decisions.push({
        what: `A ring of ${remote.length + 1} places`,
        why: 'any one cable of it may fail and every place stays connected',
      });
  }
  for (const stock of hand.unused())
    decisions.push({
      what: `${stock.model} is not used, or not every one of them`,
      why:
        !stock.vlanAware && !isFlat(brief) ? 'it does not understand VLANs' : 'nothing is left for it to do',
    });
  return { gateway, core, switches, accessPoints, links: cabling.links, roots, decisions };
}

/** Copper ports of a switch that wait for what is to come. */
export function keptPorts({ model, plugged, kept }: SwitchDesign): number[] {
  return copperPorts(model)
    .filter((port) => !plugged.has(port))
    .slice(0, kept);
}

/** Ports of a gateway for its lines: those that face a provider as they come, then the next ones. */
export function linePorts(
  { model, taken: used }: { readonly model: Model; readonly taken?: ReadonlySet<number> },
  lines: number,
): number[] {
  return [...model.uplinks, ...copperPorts(model)].filter((port) => !used?.has(port)).slice(0, lines);
}

function gatewayFor(
  brief: Brief,
  hand: AtHand,
  worlds: number,
  decisions: Decision[],
): Omit<Hardware['gateway'], 'taken'> {
  const ports = brief.lines.length + worlds;
  const enough = (model: Model) =>
    linePorts({ model }, ports).length === ports &&
    (brief.groups.length + 2 <= (model.vlanLimit ?? Infinity) || isFlat(brief));
  const mine = hand.of('gateway', brief.places[0]!, isFlat(brief)).find(({ model }) => enough(model));
  if (mine) {
    mine.used = true;
    return { model: mine.model, atHand: true };
  }
  const shelf = (brief.site.kind === 'home' ? ['gateway-4', 'gateway-6'] : ['gateway-6']).map((id) =>
    modelById.get(id)!,
  );
  const model = shelf.find(enough);
  if (!model)
    throw badInput(
      `${brief.lines.length} Internet connections and ${worlds} ${worlds === 1 ? 'network' : 'networks'} need ${ports} ports at the gateway; the largest on the shelf has ${shelf.at(-1)!.blocks[0]!.count}. Leave out a connection, or name a larger gateway among the boxes at hand.`,
      'line',
    );
  decisions.push({
    what: `Gateway: ${model.name}`,
    why: `${brief.lines.length} for the Internet, ${worlds} to the inside`,
  });
  return { model, atHand: false };
}

function boughtAt(place: Place, switches: readonly SwitchDesign[]): Decision[] {
  const counts = new Map<string, { count: number; now: number; kept: number; atHand: boolean }>();
  for (const { model, plugged, kept, atHand } of switches) {
    const sum = counts.get(model.name) ?? { count: 0, now: 0, kept: 0, atHand };
    counts.set(model.name, {
      count: sum.count + 1,
      now: sum.now + plugged.size,
      kept: sum.kept + kept,
      atHand,
    });
  }
  return [...counts].map(([name, { count, now, kept, atHand }]) => ({
    what: `${place.name}: ${count} × ${name}${atHand ? ', at hand' : ''}`,
    why:
      now + kept === 0
        ? 'joins the other switches'
        : `${now} ports in use, ${kept} kept for growth and as spare`,
  }));
}

const leastUsed = (cabling: Cabling, heads: readonly SwitchDesign[]): SwitchDesign =>
  heads.reduce((best, head) => (cabling.fibreLeft(head.key) > cabling.fibreLeft(best.key) ? head : best));

function join(
  cabling: Cabling,
  a: SwitchDesign,
  b: SwitchDesign,
  metres: number,
  near: boolean,
  ring = false,
): void {
  if (cabling.link(a.key, b.key, metres, near, ring)) return;
  throw badInput(
    `${a.model.name} in ${a.place.name} and ${b.model.name} in ${b.place.name} have no ports left to join them over ${metres} m; a box with more fibre ports is needed.`,
    'stock',
  );
}

function joinPlaces(
  cabling: Cabling,
  heads: ReadonlyMap<Place, readonly SwitchDesign[]>,
  main: Place,
  remote: readonly Place[],
  ring: boolean,
): void {
  const head = (place: Place) => heads.get(place)![0]!;
  const apart = (place: Place) =>
    place.sort === 'other-building' ? Math.max(metresTo(place), COPPER_REACH + 1) : metresTo(place);
  if (!ring) {
    for (const place of remote)
      join(cabling, leastUsed(cabling, heads.get(main)!), head(place), apart(place), false);
    return;
  }
  const round = [main, ...remote];
  round.forEach((place, i) => {
    const next = round[(i + 1) % round.length]!;
    join(cabling, head(place), head(next), Math.max(apart(place), apart(next)), false, true);
  });
}
