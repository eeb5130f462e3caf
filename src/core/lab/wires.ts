import { fabric, hasLoop } from '../model/switching';
import { enters, leaves, linksOf } from '../model/wiring';
import { routersIn } from '../model/routing';
import { type Plan, vlansOf } from '../plan';
import { outsideAddress } from '../rehearse';

/** What cables carry, tag by tag: on a kernel each tag on a cable is a cable of its own. */

/** A cable on which some frames pass one way only is laid without them. */
export const ONE_WAY = 'a port sends and takes the same frames in different VLANs';

/** Why a plan cannot be laid as it is; null when it can. */
export function unlaid(plan: Plan): string | null {
  if (hasLoop(plan)) return 'frames go in circles';
  if ([...linksOf(plan).values()].some((links) => links.length > 1)) return 'two cables in one port';
  const routers = [...routersIn(plan).values()];
  const { bridges } = fabric(plan);
  if (routers.some(({ device }) => bridges.some(({ device: id, box }) => id === device.id && !box.vlanAware)))
    return 'a router without VLANs';
  const oneWay = [...linksOf(plan).values()]
    .flat()
    .some(({ from, to }) => tagsOf(plan).some((tag) => wiresOf(plan, from, to, tag) === 'one-way'));
  if (oneWay) return ONE_WAY;
  const outside = routers.flatMap(({ uplinks }) => uplinks.map((uplink) => outsideAddress(plan, uplink)));
  if (new Set(outside).size < outside.length) return 'two uplinks with one address';
  return null;
}

/** Every tag a frame can wear, none first. */
export const tagsOf = (plan: Plan): number[] => [0, ...new Set([1, ...vlansOf(plan).map(({ vid }) => vid)])];

/** What a port does with frames of one tag, in VLANs of its box; an end device has one wire, number 0. */
interface Use {
  readonly takes: number | null;
  readonly sends: readonly number[];
}
export function trafficOf(plan: Plan, id: string, other: string, tag: number): Use {
  const { bridges, seats } = fabric(plan);
  const seat = seats.get(id);
  if (!seat) {
    const { device } = plan.port.get(id)!;
    const { voice } = plan.port.get(other)!;
    const told = plan.device.get(device)!.kind === 'phone' && voice && plan.vlan.get(voice)!.vid === tag;
    return tag === 0 || told ? { takes: 0, sends: [0] } : { takes: null, sends: [] };
  }
  const bridge = bridges[seat.bridge]!;
  const entered = enters(bridge, seat.port, tag);
  return {
    takes: entered && 'vid' in entered ? entered.vid : null,
    sends: tagsOf(plan).filter((vid) => leaves(bridge, seat.port, vid) === tag),
  };
}

/** The VLANs that frames with a tag join over a cable; null when none pass, `one-way` when they pass one way only. */
export function wiresOf(
  plan: Plan,
  from: string,
  to: string,
  tag: number,
): readonly [number, number] | 'one-way' | null {
  const [a, b] = [trafficOf(plan, from, to, tag), trafficOf(plan, to, from, tag)];
  const [forth, back] = [b.takes === null ? [] : a.sends, a.takes === null ? [] : b.sends];
  if (forth.length === 0 && back.length === 0) return null;
  const same = forth.length === 1 && forth[0] === a.takes && back.length === 1 && back[0] === b.takes;
  return same ? [a.takes!, b.takes!] : 'one-way';
}
