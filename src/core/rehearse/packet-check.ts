import type { IpAddress } from '../address';
import type { Plan, RecordRef } from '../plan';
import { type PacketSide, decide, filterOf, sideOfAddress, zonesOf } from '../model/policy';
import type { Router } from '../model/routing';
import type { Conversation, Packet } from './conversation';
import { PacketLog } from './packet-log';

/** A port that a client takes for itself (RFC 6335, 6): an answer goes there. */
const ANY_CLIENT = 49_152;

/** A packet under way at routers: what the filter of each says of it, and which conversations it remembers. */
export abstract class PacketCheck extends PacketLog {
  constructor(
    plan: Plan,
    private readonly today: string | null,
    packet: Packet,
    talk: Conversation,
  ) {
    super(plan, packet, talk);
  }

  /** What its filter says; the first packet of a conversation is remembered by a box that keeps track. */
  protected check(router: Router, from: PacketSide, to: PacketSide, opened: RecordRef | null): void {
    const { plan, packet, talk } = this;
    const { device } = router;
    const filter = filterOf(plan, device);
    const note = (decision: string, on: RecordRef | null) => this.note(device.name, decision, on);
    if (packet.reply) {
      talk.answered.add(device.id);
      const filtered = zonesOf(plan).length > 0;
      if (filter === 'none' || (filter === 'stateless' && !filtered)) return;
      if (filter === 'stateless') return note('a line of its own lets answers back', null);
      if (talk.seen.has(device.id)) {
        if (filtered) note('it is an answer to what it let through', null);
        return;
      }
      // What it never saw asked is no answer: of TCP and ICMP it is nothing that begins a conversation, of UDP it may be.
      if (packet.wanted.protocol !== 'udp')
        this.halt(
          device.name,
          'the answer comes this way and the question did not, so it is dropped: the way back is another one',
          { table: 'device', id: device.id },
        );
    }
    const verdict = decide(
      plan,
      device,
      packet.reply ? { ...packet, wanted: { ...packet.wanted, port: ANY_CLIENT } } : packet,
      {
        from: this.senderAt(router, from, to),
        to: this.sideOf(router, packet.to, to),
        ...(opened ? { opened } : {}),
      },
      this.today,
    );
    const why = packet.reply
      ? `it did not see the question and takes this for one: ${verdict.why}`
      : verdict.why;
    if (!verdict.passes) this.halt(device.name, why, verdict.on, [], packet.reply ? null : verdict);
    note(why, verdict.on);
    if (!packet.reply) talk.seen.add(device.id);
  }

  /** It knows what it sends itself. */
  protected fromItself(device: string): void {
    if (this.packet.reply) this.talk.answered.add(device);
    else this.talk.seen.add(device);
  }

  /** On a leg the address says where a packet is from or for, also when it comes over another router. */
  private sideOf(router: Router, address: IpAddress, side: PacketSide): PacketSide {
    return 'vlan' in side ? sideOfAddress(this.plan, router, address) : side;
  }

  /** The box itself answers those of its own segments at their own interface only, so that nobody borrows their addresses. */
  private senderAt(router: Router, from: PacketSide, to: PacketSide): PacketSide {
    const side = this.sideOf(router, this.packet.from, from);
    const astray =
      'gateway' in to &&
      'vlan' in side &&
      'vlan' in from &&
      side.vlan !== from.vlan &&
      router.legs.some(({ vlan }) => vlan === side.vlan);
    if (!astray) return side;
    const { name } = this.plan.vlan.get(side.vlan)!;
    return { nowhere: `its sender is of ${name}, whom it answers at its own interface there only` };
  }
}
