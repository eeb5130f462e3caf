import { type Plan, type Port, boxOf, byName, groupBy } from '../../plan';
import { boxesInOrder, fabric } from '../../model/switching';
import { type PortFacts, freePorts, rangeText } from '../../model/wiring';
import { sentBy, ssidsOf } from '../../model/wireless';
import type { Air } from '../../rehearse';

/** Which sockets and networks are tried, so that everything set otherwise somewhere is tried once. */

export interface SocketGroup {
  /** The one that is tried. */
  readonly port: Port;
  /** Nothing is plugged in. */
  readonly free: boolean;
  /** Those of its box that are set alike and taken to be like it. */
  readonly alike: readonly Port[];
}

const factsKey = (facts: PortFacts | null): string =>
  facts === null
    ? 'off'
    : `${facts.pvid} ${facts.untagged} ${facts.tagged.except} ${[...facts.tagged.vids].sort((a, b) => a - b).join(',')} ${facts.accepts}`;

/**
 * The sockets for end devices that carry a segment, of each box one of those set alike: a free one where there is one, as nothing
 * has to be unplugged there. Boxes in their order, so that whoever tries them walks on.
 */
export function socketGroups(plan: Plan): readonly SocketGroup[] {
  const { bridges } = fabric(plan);
  return boxesInOrder(plan).flatMap(({ device }): SocketGroup[] => {
    const at = bridges.find((bridge) => bridge.device === device);
    if (!at || !boxOf(plan, device)) return [];
    const free = new Set(freePorts(plan, device).map(({ id }) => id));
    const sockets = at.ports.flatMap(({ id }, i) => {
      const port = plan.port.get(id);
      const carries =
        port && port.number > 0 && (port.role === 'access' || port.role === 'voice') && port.enabled;
      return carries && !port.defective && port.untagged !== null ? [{ port, facts: at.facts[i]! }] : [];
    });
    return [
      ...groupBy(sockets, ({ port, facts }) => `${port.role} ${port.voice} ${factsKey(facts)}`).values(),
    ].map((group) => {
      const ports = group.map(({ port }) => port).sort((a, b) => a.number - b.number);
      const port = ports.find(({ id }) => free.has(id)) ?? ports[0]!;
      return { port, free: free.has(port.id), alike: ports.filter((other) => other !== port) };
    });
  });
}

/** Ports that are taken to be as one that is tried, in words: “sw-a 5-8 as 4”. */
export const assumedText = (plan: Plan, { port, alike }: SocketGroup): string =>
  `${plan.device.get(port.device)!.name} ${rangeText(alike)} as ${port.number}`;

/** Networks at access points: each network and each access point at least once, as few as do. */
export function airsTried(plan: Plan): readonly Air[] {
  const open = ssidsOf(plan).flatMap((ssid) =>
    sentBy(plan, ssid).map((device) => ({ ssid: ssid.id, at: device.id, name: device.name })),
  );
  const left = new Set(open.flatMap(({ ssid, at }) => [`ssid ${ssid}`, `at ${at}`]));
  const tried: Air[] = [];
  const news = ({ ssid, at }: Air) => [`ssid ${ssid}`, `at ${at}`].filter((key) => left.has(key)).length;
  for (;;) {
    const best = open.toSorted((a, b) => news(b) - news(a) || byName(a.name, b.name))[0];
    if (!best || news(best) === 0) return tried;
    const { ssid, at } = best;
    tried.push({ ssid, at });
    left.delete(`ssid ${ssid}`);
    left.delete(`at ${at}`);
  }
}
