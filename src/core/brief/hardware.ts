import { type Need, type Place, badInput } from '../plan';
import { type Model, modelById } from '../model/wiring';
import { AtHand } from './at-hand';
import { COPPER_REACH, Cabling, NEAR, inFront, join, joinPlaces, leastUsed } from './cabling';
import {
  type AccessPointDesign,
  CORE,
  type Decision,
  GATEWAY,
  type Hardware,
  type Occupied,
  type Standing,
  type SwitchDesign,
  type Wanted,
  copperPorts,
} from './design';
import { type Brief, crowdOf, grownNeed, insideGroups, isCrowded, isFlat, metresTo, placeOf } from './gather';
import { switchesFor } from './switches';
import { type World, classOf, things, worldOf } from './things';

/** Which boxes a brief needs, where they stand and how they hang together. Nothing of a plan is written yet. */

/** Ports that a place has to need before a switch is put there. */
const WORTH_A_SWITCH = 5;
/** Clients one access point carries well, and the square metres it covers indoors. */
const CLIENTS_EACH = 30;
const COVERS = 150;

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

/** It passes what it routes: a filter that forgets would stop the answers of what the gateway let through. */
const coreModel: Model = { ...modelById.get('layer3-24')!, filter: 'none' };

/** Works out the boxes of a brief and how they are joined. */
export function hardwareOf(brief: Brief, standing: Standing | null, occupied: Occupied): Hardware {
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
    : { ...gatewayFor(brief, hand, worlds.length, decisions), taken: occupied(GATEWAY) };
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
    cabling.add(CORE, core, occupied(CORE));
    cabling.link(GATEWAY, CORE, NEAR);
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
      const made = switchesFor(brief, hand, place, world, there.get(place)!, occupied);
      const beyond = place === main ? (ring ? 2 : remote.length) + (core ? 1 : 0) : ring ? 2 : 1;
      const front = inFront(place, world, made, beyond);
      const all = [...front.heads.filter((head) => !made.includes(head)), ...made];
      for (const one of all) cabling.add(one.key, one.model, [...one.plugged.keys(), ...occupied(one.key)]);
      switches.push(...all);
      heads.set(place, front.heads);
      decisions.push(...boughtAt(place, all));
      front.heads.slice(1).forEach((head, i) => join(cabling, front.heads[i]!, head, NEAR));
      front.mine.forEach((one) => join(cabling, leastUsed(cabling, front.heads), one, NEAR));
    }
    const [root] = heads.get(main!)!;
    roots.push({ key: root!.key, priority: core ? 8192 : 4096 });
    if (!cabling.link(above, root!.key, NEAR))
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
  const next = cabling.links.find(({ from }) => from.box === GATEWAY)?.to.box;
  const kept = switches.find(({ key }) => key === next)?.kept ?? 0;
  if (next && !standing && isCrowded(brief))
    if (cabling.double(GATEWAY, next, kept))
      decisions.push({
        what: 'Two cables between the gateway and the first switch, as one bundle',
        why: `${crowdOf(brief)} devices share it; with one cable less it still works`,
      });
  for (const stock of hand.unused())
    decisions.push({
      what: `${stock.model} is not used, or not every one of them`,
      why:
        !stock.vlanAware && !isFlat(brief) ? 'it does not understand VLANs' : 'nothing is left for it to do',
    });
  return { gateway, core, switches, accessPoints, links: cabling.links, roots, decisions };
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
