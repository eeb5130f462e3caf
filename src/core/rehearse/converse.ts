import type { Plan } from '../plan';
import { filterOf } from '../model/policy';
import type { Arrival, Conversation, Packet, Stop, Trip } from './conversation';
import type { Host } from './host';
import { PacketWalk } from './packet-walk';

/** A packet and its answer, through the whole plan. */

/** The trip of the answer, from where the question arrived. */
function answerTrip(plan: Plan, today: string | null, forth: Trip, talk: Conversation): Trip {
  const { arrival, packet } = forth;
  const reply: Packet = { ...packet, from: packet.to, to: packet.from, reply: true };
  const traveller = new PacketWalk(plan, today, reply, talk);
  const at = arrival as Arrival;
  switch (at.at) {
    case 'host':
      return traveller.fromHost(at.host);
    case 'router':
      return traveller.fromRouter(at.router);
    case 'internet':
      return traveller.fromUplink(at.router, at.uplink);
    case 'tunnel':
      return traveller.fromTunnel(at.router, at.tunnel);
  }
}

/**
 * A connection of TCP stands after three segments (RFC 9293, 3.5). The third goes the way of the first: a box that keeps track
 * saw the first there, and where the second took another way it takes the third for nothing that belongs to a connection.
 */
function thirdSegment(plan: Plan, { seen, answered }: Conversation): Stop | null {
  for (const id of seen) {
    const device = plan.device.get(id);
    if (!device || answered.has(id) || filterOf(plan, device) !== 'stateful') continue;
    const why =
      'the answer went back another way, so it never saw one and drops what follows; let both ways pass it, or neither';
    return { what: device.name, why, on: { table: 'device', id }, remedies: [], verdict: null };
  }
  return null;
}

/** One conversation as it went: there, back, and what came of it. */
export interface Course {
  readonly forth: Trip;
  readonly back: Trip | null;
  /** `on`: question and answer arrive, and what would follow does not. */
  readonly stop: (Stop & { readonly way: 'forth' | 'back' | 'on' }) | null;
  readonly talk: Conversation;
}

export interface Setting {
  readonly newcomers: readonly Host[];
  /** The uplink that a router takes which could take several. */
  readonly over: ReadonlyMap<string, string>;
}

/** Sends a packet, and its answer from wherever it arrived. */
export function converse(
  plan: Plan,
  today: string | null,
  { newcomers, over }: Setting,
  packet: Packet,
  send: (walk: PacketWalk) => Trip,
): Course {
  const talk: Conversation = {
    seen: new Set(),
    answered: new Set(),
    changed: [],
    over: new Map(over),
    wires: [],
    doubts: new Set(),
    cautions: new Set(),
    newcomers,
  };
  const forth = send(new PacketWalk(plan, today, packet, talk));
  const back = forth.stop ? null : answerTrip(plan, today, forth, talk);
  const third = back && !back.stop && packet.wanted.protocol === 'tcp' ? thirdSegment(plan, talk) : null;
  const stop = forth.stop
    ? { ...forth.stop, way: 'forth' as const }
    : back?.stop
      ? { ...back.stop, way: 'back' as const }
      : third && { ...third, way: 'on' as const };
  return { forth, back, stop, talk };
}
