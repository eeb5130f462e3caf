import { type IpAddress, formatAddress } from '../address';
import { type Remedy, boxOf, type Plan, type RecordRef, portTitle } from '../plan';
import type { Verdict } from '../model/policy';
import type { Router } from '../model/routing';
import type { Hop } from '../model/switching';
import type { Arrival, Conversation, Packet, PacketStep, Stop, Trip } from './conversation';
import { deliver } from './frames';
import { type WireEnd, stoppedOnWire } from './guards/on-wire';

/** Thrown where a packet goes no further. No Error: thousands are thrown in one rehearsal, and nobody reads their call stacks. */
export class Stopped {
  constructor(readonly stop: Stop) {}
}

/** A packet under way: what has been written down of it, what it looks like now, and how it is stopped. */
export abstract class PacketLog {
  protected readonly steps: PacketStep[] = [];

  constructor(
    protected readonly plan: Plan,
    protected packet: Packet,
    protected readonly talk: Conversation,
  ) {}

  protected run(travel: () => Arrival): Trip {
    let arrival: Arrival | null = null;
    let stop: Stop | null = null;
    try {
      arrival = travel();
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
      stop = error.stop;
      const { what, why: decision, on } = stop;
      this.steps.push({ what, came: '', left: '', decision, result: 'stops', on });
    }
    return { steps: this.steps, stop, arrival, packet: this.packet };
  }

  protected halt(
    what: string,
    why: string,
    on: RecordRef | null = null,
    remedies: readonly Remedy[] = [],
    verdict: Verdict | null = null,
  ): never {
    throw new Stopped({ what, why, on, remedies, verdict });
  }

  /** Writes down what somebody decided; what came in and what went out where that tells something. */
  protected note(
    what: string,
    decision: string,
    on: RecordRef | null,
    { came = '', left = '' }: { readonly came?: string; readonly left?: string } = {},
  ): void {
    this.steps.push({ what, came, left, decision, result: 'passes', on });
  }

  /** Writes down what nobody recorded and is taken to be as it should. */
  protected assume(what: string, decision: string, on: RecordRef | null = null): void {
    this.steps.push({ what, came: '', left: '', decision, result: 'assumed', on });
  }

  /** The addresses of the packet as it is now. */
  protected ends = (): string => `${formatAddress(this.packet.from)} → ${formatAddress(this.packet.to)}`;

  /** Frames from one to the other on one wire, box by box, and what guards make of them. */
  protected wire(from: WireEnd, to: WireEnd): void {
    const { plan } = this;
    const sent = deliver(plan, from.place, from.vlan, to.place, to.vlan);
    const guarded = stoppedOnWire(plan, from, to, sent.hops, this.packet.from);
    const sure = sent.why === null && !sent.assumed && guarded === null;
    this.talk.wires.push({ from: from.place, vlan: from.vlan, to: to.place, listens: to.vlan, sure });
    for (const hop of sent.hops) this.steps.push(frameStep(plan, hop));
    if (sent.why !== null) this.halt(from.title, sent.why, { table: 'vlan', id: to.vlan }, sent.remedies);
    if (guarded)
      this.halt(plan.device.get(guarded.device)!.name, guarded.why, { table: 'port', id: guarded.port });
    if (sent.assumed) {
      const { name, vid } = plan.vlan.get(to.vlan)!;
      this.assume('cables', `not all recorded: taken as in VLAN ${vid} ${name}`);
    }
  }

  protected rewrite(
    router: Router,
    field: 'from' | 'to',
    after: IpAddress,
    why: string,
    on: RecordRef,
  ): void {
    const before = this.packet[field];
    if (before === after) return;
    if (!this.packet.reply) this.talk.changed.push({ router: router.device.id, field, before, after });
    this.packet = { ...this.packet, [field]: after };
    this.note(router.device.name, why, on, { came: formatAddress(before), left: formatAddress(after) });
  }

  /** Changes an answer back, the last change first. */
  protected undo(router: Router): void {
    for (const change of [...this.talk.changed].reverse()) {
      if (change.router !== router.device.id) continue;
      const field = change.field === 'from' ? 'to' : 'from';
      if (this.packet[field] !== change.after) continue;
      this.packet = { ...this.packet, [field]: change.before };
      const on: RecordRef = { table: 'device', id: router.device.id };
      this.note(router.device.name, 'translates the answer back', on, {
        came: formatAddress(change.after),
        left: formatAddress(change.before),
      });
    }
  }
}

const tagText = (tag: number): string => (tag === 0 ? 'untagged' : `tagged ${tag}`);

function frameStep(plan: Plan, { device, entered, tagIn, vid, left, tagOut }: Hop): PacketStep {
  const name = plan.device.get(device)!.name;
  const at = (port: typeof entered) => (port && port.number > 0 ? `${portTitle(plan, port)} ` : '');
  return {
    what: name,
    came: entered && entered.number > 0 ? `${at(entered)}${tagText(tagIn)}` : 'inside',
    left: left && left.number > 0 ? `${at(left)}${tagText(tagOut)}` : 'inside',
    decision: boxOf(plan, device)?.vlanAware === false ? 'passes it on as it is' : `VLAN ${vid}`,
    result: 'passes',
    on: { table: 'port', id: (left ?? entered)?.id ?? '' },
  };
}
