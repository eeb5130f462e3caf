import {
  type IpAddress,
  familyOf,
  formatAddress,
  type Prefix,
  contains,
  formatPrefix,
  networkOf,
  isBroadcast,
} from '../address';
import { subnetSettings } from './remedies';
import { type Forward, type Uplink, type RecordRef, subnetOf } from '../plan';
import { type PacketSide, vlanOfAddress } from '../model/policy';
import {
  type Leg,
  type Router,
  holdersOf,
  isSame,
  legUp,
  routersAt,
  routersIn,
  wayTo,
} from '../model/routing';
import { forwardedTo, kindOfAddress, turnsBack, workingUplinks } from '../model/uplink';
import type { Arrival, Trip } from './conversation';
import { type Place, deliver } from './frames';
import { type WireEnd, atLeg } from './guards/on-wire';
import { type Host, hostAt, outsideAddress, outsideHost } from './host';
import { pingCaution, refusedByHost } from './own-filter';
import { PacketCheck } from './packet-check';
import { Stopped } from './packet-log';
import { downAt, forwardFor, noWay, oneToOne, sideOfWay, wayInside } from './router-ways';

const LIMIT = 16;
/** Where a packet of the Internet comes in. */
export interface Entrance {
  readonly router: Router;
  readonly uplink: Uplink;
  readonly forward: Forward | null;
  /** What nobody recorded and is taken to be so; null for nothing. */
  readonly unknown: string | null;
}

/** A packet on its way through the plan: from host to router to router, each with what it decided and why. */
export class PacketWalk extends PacketCheck {
  private passed = 0;

  fromHost(host: Host): Trip {
    return this.run(() => this.send(host));
  }

  /** From the Internet, in by an uplink, to whatever stands behind one of its forwards, or to the gateway itself. */
  fromInternet({ router, uplink, forward, unknown }: Entrance): Trip {
    return this.run(() => {
      if (unknown !== null) {
        this.assume(uplink.name, unknown, { table: 'uplink', id: uplink.id });
        this.talk.doubts.add(unknown);
      }
      return this.route(router, { uplink: uplink.id }, forward);
    });
  }

  /** Back from the Internet, in by the uplink the packet left by. */
  fromUplink(router: Router, uplink: Uplink): Trip {
    return this.run(() => this.route(router, { uplink: uplink.id }, null));
  }

  /** Back from the far end of a tunnel. */
  fromTunnel(router: Router, tunnel: string): Trip {
    return this.run(() => this.route(router, { tunnel }, null));
  }

  /** What a router itself sends, which its own filter does not look at. */
  fromRouter(router: Router): Trip {
    return this.run(() => this.leave(router, { gateway: true }, null));
  }

  private send(host: Host): Arrival {
    const { plan, packet } = this;
    const network = networkOf(host.address, host.length);
    if (familyOf(packet.to) !== familyOf(host.address))
      this.halt(host.title, `it has no address of the kind of ${formatAddress(packet.to)}`, host.on);
    if (contains(network, packet.to)) {
      if (isBroadcast(network, packet.to))
        this.halt(
          host.title,
          `${formatAddress(packet.to)} is the broadcast address of its own network ${formatPrefix(network)}`,
          host.on,
          host.own && host.on ? [subnetSettings(host.on.id)] : [],
        );
      this.note(
        host.title,
        `${formatAddress(packet.to)} is in its own network ${formatPrefix(network)}`,
        host.on,
        { left: this.ends() },
      );
      return this.toNeighbour(host);
    }
    const { gateway } = host;
    const mend = host.own && host.on ? [subnetSettings(host.on.id)] : [];
    if (gateway === null)
      this.halt(
        host.title,
        'it has no gateway, so it reaches and answers only its own network',
        host.on,
        mend,
      );
    if (!contains(network, gateway))
      this.halt(
        host.title,
        `its gateway ${formatAddress(gateway)} is not in its own network ${formatPrefix(network)}`,
        host.on,
        mend,
      );
    const [router] = routersAt(plan, gateway);
    if (!router)
      this.halt(host.title, `no router has its gateway’s address ${formatAddress(gateway)}`, host.on, mend);
    this.note(host.title, `sends it to its gateway ${formatAddress(gateway)}`, host.on, {
      left: this.ends(),
    });
    const leg = router.legs.find(({ address }) => address === gateway)!;
    this.noteTwins(host.place, host.vlan, gateway, router.device.id);
    this.wire(host, atLeg(plan, router, leg));
    return this.route(router, { vlan: leg.vlan }, null);
  }

  /** In what it takes for its own network, which with a wrong mask holds others that are not there. */
  private toNeighbour(host: Host): Arrival {
    const { to } = this.packet;
    const subnet = host.own ? subnetOf(this.plan, host.vlan, familyOf(to)) : undefined;
    if (!subnet || host.length >= subnet.prefix.length || contains(subnet.prefix, to))
      return this.reach(host, to, null);
    try {
      return this.reach(host, to, null);
    } catch (error) {
      if (!(error instanceof Stopped)) throw error;
      const why = `its mask is /${host.length} and should be /${subnet.prefix.length}, so it takes ${formatAddress(to)} for a neighbour and does not ask its gateway`;
      return this.halt(host.title, why, host.on, host.on ? [subnetSettings(host.on.id)] : []);
    }
  }

  /** To whoever has an address on a wire: a host, a router itself, or the outside of a router behind this one. */
  private reach(from: WireEnd, to: IpAddress, within: Prefix | null): Arrival {
    const { plan } = this;
    let last: Stopped | null = null;
    for (const uplink of workingUplinks(plan)) {
      const stands = uplink.segment !== null && outsideAddress(plan, uplink) === to;
      const outer = stands ? outsideHost(plan, uplink) : null;
      const router = outer && routersIn(plan).get(uplink.device);
      if (!outer || !router) continue;
      this.wire(from, outer);
      const forward = forwardFor(plan, uplink, this.packet.wanted, this.packet.from);
      return this.route(router, { uplink: uplink.id }, this.packet.reply ? null : forward);
    }
    const here = holdersOf(plan, to)
      .filter(({ subnet }) => !within || contains(within, plan.subnet.get(subnet)!.prefix.address))
      .map((address) => hostAt(plan, address));
    for (const host of [...this.talk.newcomers.filter(({ address }) => address === to), ...here]) {
      const before = this.steps.length;
      try {
        this.wire(from, host);
      } catch (error) {
        if (!(error instanceof Stopped)) throw error;
        last ??= error;
        this.steps.length = before;
        continue;
      }
      this.noteTwins(from.place, from.vlan, to, host.device?.id ?? null);
      const router = host.device && routersIn(plan).get(host.device.id);
      if (router) return this.route(router, { vlan: host.vlan }, null);
      this.heard(host);
      return { at: 'host', host };
    }
    if (last) throw last;
    return this.halt(from.title, `nobody has the address ${formatAddress(to)}`);
  }

  /** Somebody hears it, and lets it in or does not. */
  private heard(host: Host): void {
    const { reply } = this.packet;
    const refused = reply ? null : refusedByHost(this.plan, host, this.packet);
    if (refused !== null) this.halt(host.title, refused, { table: 'device', id: host.device!.id });
    const caution = reply ? null : pingCaution(host, this.packet);
    if (caution !== null) this.talk.cautions.add(caution);
    this.note(host.title, reply ? 'has its answer' : 'receives it', host.on, { came: this.ends() });
  }

  /** Remembers who else on a wire has an address. */
  private noteTwins(from: Place, vlan: string, to: IpAddress, chosen: string | null): void {
    const { plan } = this;
    for (const address of holdersOf(plan, to)) {
      // A pair of routers has a virtual address in common, and agrees on who answers (RFC 9568).
      if (address.assignment === 'virtual' || plan.interface.get(address.interface)!.device === chosen)
        continue;
      const other = hostAt(plan, address);
      if (deliver(plan, from, vlan, other.place, other.vlan).why === null)
        this.talk.doubts.add(
          `${other.title} has ${formatAddress(to)} too, and whoever answers first is believed`,
        );
    }
  }

  /** To a router itself. */
  private local(router: Router, side: PacketSide): Arrival {
    const { plan } = this;
    const asked = router.legs.find(({ address }) => address === this.packet.to);
    if (asked && !legUp(plan, router, asked.vlan)) {
      this.halt(router.device.name, downAt(plan, asked), { table: 'device', id: router.device.id });
    }
    this.check(router, side, { gateway: true }, null);
    const got = this.packet.reply ? 'has its answer' : 'answers it itself';
    this.note(router.device.name, got, { table: 'device', id: router.device.id }, { came: this.ends() });
    return { at: 'router', router };
  }

  private route(router: Router, side: PacketSide, forward: Forward | null): Arrival {
    const { plan } = this;
    const { device } = router;
    const on: RecordRef = { table: 'device', id: device.id };
    if (++this.passed > LIMIT)
      this.halt(device.name, 'the packet goes in circles between routers until its hops are used up', on);
    if ('uplink' in side && !this.packet.reply) this.talk.over.set(device.id, side.uplink);
    if (this.packet.reply) this.undo(router);
    else if (forward) {
      this.rewrite(router, 'to', forwardedTo(plan, forward)!, 'forwards it', {
        table: 'forward',
        id: forward.id,
      });
      this.packet = {
        ...this.packet,
        wanted: { ...this.packet.wanted, port: forward.inside + (this.packet.wanted.port - forward.from) },
      };
    } else {
      for (const item of router.translations) {
        const inside = oneToOne(plan, item, this.packet.to, 'in');
        if (inside !== null)
          this.rewrite(router, 'to', inside, 'translates one to one', { table: 'translation', id: item.id });
      }
      const back =
        'vlan' in side && router.uplinks.find((uplink) => outsideAddress(plan, uplink) === this.packet.to);
      if (back) {
        const turned = forwardFor(plan, back, this.packet.wanted);
        if (turned && turnsBack(plan, turned)) return this.route(router, side, turned);
        if (turned)
          this.note(
            device.name,
            turned.hairpin
              ? 'two uplinks have addresses that change, so the forward works from outside only, and the box itself is asked'
              : 'the forward works from outside only, and the box itself is asked',
            { table: 'forward', id: turned.id },
          );
        return this.local(router, side);
      }
    }
    const own = (address: IpAddress) =>
      router.legs.some((leg) => leg.address === address) ||
      router.uplinks.some((uplink) => outsideAddress(plan, uplink) === address);
    if (own(this.packet.to)) return this.local(router, side);
    if (!router.routes)
      this.halt(device.name, 'it stands in several segments and does not route between them', on);
    return this.leave(router, side, forward);
  }

  private leave(router: Router, side: PacketSide, forward: Forward | null): Arrival {
    const { plan } = this;
    const { device } = router;
    const on: RecordRef = { table: 'device', id: device.id };
    const to = this.packet.to;
    const way = wayTo(plan, router, to, this.talk.over.get(device.id));
    if (!way) return this.halt(device.name, noWay(plan, router, to), on, wayInside(plan, router, to));
    if (way.by === 'uplink' && way.uplink.segment === null && vlanOfAddress(plan, to) !== null)
      this.halt(
        device.name,
        `it has no route to ${formatAddress(to)}, which is inside this site, and would send it to the Internet`,
        on,
        wayInside(plan, router, to),
      );
    const out = sideOfWay(way);
    if ('gateway' in side) this.fromItself(device.id);
    else this.check(router, side, out, forward ? { table: 'forward', id: forward.id } : null);
    if (!this.packet.reply && 'vlan' in out) this.translateOut(router, out.vlan);
    switch (way.by) {
      case 'leg':
        if (isBroadcast(way.leg.prefix, to))
          this.halt(
            device.name,
            `${formatAddress(to)} is the broadcast address of ${formatPrefix(way.leg.prefix)}, and no router passes that on (RFC 2644)`,
            on,
          );
        this.hairpin(router, side, way.leg);
        return this.reach(atLeg(plan, router, way.leg), this.packet.to, way.leg.prefix);
      case 'route': {
        const { via, id } = way.route;
        const next = routersAt(plan, via).find((other) => !isSame(other, router));
        if (!way.leg || !next)
          return this.halt(
            device.name,
            `its route leads to ${formatAddress(via)}, ${way.leg ? 'where no router is' : 'which is in none of its networks'}`,
            { table: 'route', id },
          );
        const at = atLeg(plan, next, { ...way.leg, address: via });
        this.wire(atLeg(plan, router, way.leg), at);
        return this.route(next, { vlan: way.leg.vlan }, null);
      }
      case 'tunnel': {
        const { tunnel } = way;
        const there = `${formatAddress(to)} is at the other end`;
        this.note(device.name, there, { table: 'tunnel', id: tunnel.id }, { left: `tunnel ${tunnel.name}` });
        return { at: 'tunnel', router, tunnel: tunnel.id };
      }
      case 'uplink':
        return this.goOut(router, way.uplink);
    }
  }

  /** Somebody in the same segment who came by the outside address must be answered by way of the gateway. */
  private hairpin(router: Router, side: PacketSide, leg: Leg): void {
    const turned = this.talk.changed.some(
      ({ router: id, field }) => id === router.device.id && field === 'to',
    );
    if (!this.packet.reply && turned && 'vlan' in side && side.vlan === leg.vlan)
      this.rewrite(
        router,
        'from',
        leg.address,
        'puts its own address as the sender, so that the answer comes back',
        {
          table: 'device',
          id: router.device.id,
        },
      );
  }

  private translateOut(router: Router, out: string): void {
    for (const item of router.translations) {
      const subnet = this.plan.subnet.get(item.subnet)!;
      if (subnet.vlan === out) continue;
      const outside = oneToOne(this.plan, item, this.packet.from, 'out');
      if (outside !== null)
        this.rewrite(router, 'from', outside, 'translates one to one', { table: 'translation', id: item.id });
    }
  }

  private goOut(router: Router, uplink: Uplink): Arrival {
    const { plan } = this;
    const on: RecordRef = { table: 'uplink', id: uplink.id };
    if (!this.packet.reply) this.talk.over.set(router.device.id, uplink.id);
    if (familyOf(this.packet.to) === 6) return this.goOutUntranslated(router, uplink);
    if (!this.packet.reply)
      this.rewrite(
        router,
        'from',
        outsideAddress(plan, uplink),
        'translates the sender to its outside address',
        on,
      );
    if (uplink.segment !== null) {
      const outer = outsideHost(plan, uplink);
      if (!outer)
        return this.halt(router.device.name, 'its outside has no address in the segment it stands in', on);
      return this.send({ ...outer, address: this.packet.reply ? outer.address : this.packet.from });
    }
    const upstream = uplink.network !== null && contains(uplink.network, this.packet.to);
    if (!upstream && kindOfAddress(this.packet.to) !== 'public')
      this.halt(
        uplink.name,
        `${formatAddress(this.packet.to)} is not an address of the Internet (RFC 6890), and nobody there has a way to it`,
        on,
      );
    return this.gone(router, uplink, 'out to the Internet');
  }

  /** IPv6 keeps its addresses, so only those of the prefix that is delegated here are ever answered. */
  private goOutUntranslated(router: Router, uplink: Uplink): Arrival {
    const on: RecordRef = { table: 'uplink', id: uplink.id };
    const { from, to } = this.packet;
    if (uplink.segment !== null)
      this.halt(uplink.name, 'no prefix is delegated to a router behind another one, so no IPv6 passes', on);
    if (uplink.delegated === null || !contains(uplink.delegated, from))
      this.halt(
        uplink.name,
        kindOfAddress(from) === 'public'
          ? `${formatAddress(from)} is not of the prefix that is delegated over it, and IPv6 is not translated`
          : `${formatAddress(from)} is an address for inside only (RFC 4193), and IPv6 is not translated`,
        on,
      );
    if (kindOfAddress(to) !== 'public')
      this.halt(uplink.name, `${formatAddress(to)} is not an address of the Internet`, on);
    return this.gone(router, uplink, 'out to the Internet, untranslated');
  }

  private gone(router: Router, uplink: Uplink, how: string): Arrival {
    this.note(uplink.name, how, { table: 'uplink', id: uplink.id }, { left: this.ends() });
    return { at: 'internet', router, uplink };
  }
}
