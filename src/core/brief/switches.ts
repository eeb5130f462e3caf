import { type Place, badInput } from '../plan';
import { type Model, modelById, reservedFor } from '../model/wiring';
import type { AtHand } from './at-hand';
import { type Occupied, type SwitchDesign, type Wanted, copperPorts, fibrePorts, powered } from './design';
import { type Brief, isCrowded, isFlat } from './gather';
import type { World } from './things';

/** Which switches a place needs for what is to be plugged in there. */

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
    if (all.length >= ports) break;
    if (one.poeClass !== null) {
      if (!powered(model) || reservedFor(one.poeClass) > watts) continue;
      watts -= reservedFor(one.poeClass);
    }
    all.push(one);
  }
  return all;
}

/** Copper ports of a switch for things: all, but one for the way up where it has no fibre, and those for the gateway. */
const room = (model: Model, gateway: number): number =>
  copperPorts(model).length - (fibrePorts(model).length === 0 ? 1 : 0) - gateway;
/** As many switches without fibre as a box that joins others has copper for. */
const MOST_WITHOUT_FIBRE = 3;

/** Switches that take everything wanted at a place: of those at hand first, then as few and as small as do. */
export function switchesFor(
  brief: Brief,
  hand: AtHand,
  place: Place,
  world: World,
  list: readonly Wanted[],
  occupied: Occupied,
): SwitchDesign[] {
  const switches: SwitchDesign[] = [];
  let wanted = [...list].sort((a, b) => (b.poeClass ?? 0) - (a.poeClass ?? 0));
  const toGateway = isCrowded(brief) ? 2 : 1;
  const shelf = shelfFor(brief, place, list);
  const usable = (model: Model) =>
    fibrePorts(model).length > 0 ||
    switches.filter((one) => fibrePorts(one.model).length === 0).length < MOST_WITHOUT_FIBRE;
  while (wanted.length > 0) {
    const own = hand.of('switch', place, isFlat(brief)).filter(({ model }) => usable(model));
    const key = `switch ${place.id} ${world} ${switches.length + 1}`;
    const gone = occupied(key);
    const socketsOf = (model: Model) => copperPorts(model).filter((port) => !gone.has(port));
    const ports = (model: Model) =>
      room(model, switches.length === 0 && place === brief.places[0] ? toGateway : 0) -
      (copperPorts(model).length - socketsOf(model).length);
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
    const sockets = socketsOf(model);
    real.forEach((one, i) => plugged.set(sockets[i]!, one));
    switches.push({
      key,
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
