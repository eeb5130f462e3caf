import { type IpAddress, contains, familyOf, formatAddress, formatPrefix, networkOf } from '../core/address';
import { nftRuleset } from '../core/formats';
import { ownSettings } from '../core/model/hosts';
import { filterOf } from '../core/model/policy';
import { type Router, routersIn } from '../core/model/routing';
import { fabric, hasLoop } from '../core/model/switching';
import { letsForwardsIn } from '../core/model/uplink';
import { type Bridge, enters, leaves, linksOf, portsOf } from '../core/model/wiring';
import {
  type Device,
  type Plan,
  type Uplink,
  addressesOn,
  boxOf,
  interfacesOf,
  subnetsOf,
  vlansOf,
  withRecord,
} from '../core/plan';
import { farAddress, outsideAddress } from '../core/rehearse';
import { Namespaces } from './namespaces';

/** A whole plan on the kernel: boxes as bridges, routers with their rulesets, hosts, and an Internet around them. */

export const INTERNET = 'internet';

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
  if (oneWay) return 'a port sends and takes the same frames in different VLANs';
  const outside = routers.flatMap(({ uplinks }) => uplinks.map((uplink) => outsideAddress(plan, uplink)));
  if (new Set(outside).size < outside.length) return 'two uplinks with one address';
  return null;
}

/** Every tag a frame can wear, none first. */
const tagsOf = (plan: Plan): number[] => [0, ...new Set([1, ...vlansOf(plan).map(({ vid }) => vid)])];

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
function wiresOf(
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

/** An IPv6 address is there at once, without asking whether somebody has it. */
const nodad = (address: IpAddress): string => (familyOf(address) === 6 ? ' nodad' : '');

/** The lines that make a network, by host, run all at once when everything is known. */
class Site {
  readonly net = new Namespaces();
  private readonly links = new Map<string, string[]>();
  private readonly routes = new Map<string, string[]>();

  add(name: string, forwards: boolean): void {
    this.net.add(name);
    const set = [
      `for f in ipv4/ip_forward ipv6/conf/all/forwarding; do echo ${forwards ? 1 : 0} > /proc/sys/net/$f; done`,
      // What a switch passes on is no business of the router in the same box.
      'for f in /proc/sys/net/bridge/bridge-nf-call-*; do [ -e $f ] && echo 0 > $f; done',
      'cd /proc/sys/net/ipv4/conf; for c in all default; do echo 0 > $c/rp_filter; echo 1 > $c/arp_ignore; echo 2 > $c/arp_announce; echo 1 > $c/ignore_routes_with_linkdown; done',
    ];
    this.net.exec(name, 'sh', ['-c', set.join('; ')]);
    for (const lines of [this.links, this.routes]) lines.set(name, []);
  }
  link = (name: string, line: string): unknown => this.links.get(name)!.push(line);
  /** A route that the kernel refuses is one that no packet takes. */
  route = (name: string, line: string): unknown => this.routes.get(name)!.push(line);
  has = (name: string): boolean => this.links.has(name);

  run(): void {
    for (const [name, lines] of this.links) this.net.batch(name, lines);
    for (const [name, lines] of this.routes) this.net.batch(name, lines, true);
  }
}

/** The wire of a VLAN inside a box, its own interface there when it is in it. A box without VLANs has one for each tag. */
const wireOf = (bridge: Bridge, vid: number): string =>
  bridge.ports.some(({ number }, i) => number === 0 && isIn(bridge, i, vid)) ? `vlan${vid}` : `wire${vid}`;
const isIn = (bridge: Bridge, port: number, vid: number): boolean => leaves(bridge, port, vid) !== null;

/** What can be plugged into a port without a cable, in a VLAN of its box. */
export const openEnd = (number: number, vid: number): string => `x${number}v${vid}`;

/**
 * Each VLAN in a box is a bridge of the kernel, and each tag on a cable a cable of its own, so that no kernel has to know
 * VLANs.
 */
function layBridge(site: Site, plan: Plan, bridge: Bridge): void {
  const { device, ports } = bridge;
  for (const vid of tagsOf(plan)) {
    const members = ports.flatMap((port, i) => (isIn(bridge, i, vid) ? [port] : []));
    if (members.length === 0) continue;
    const wire = wireOf(bridge, vid);
    if (members.every(({ number }) => number === 0)) {
      deadInterface(site, device, vid);
      continue;
    }
    site.link(device, `link add name ${wire} type bridge`);
    site.link(device, `link set ${wire} up`);
    for (const { id, number } of members) {
      if (number === 0 || linksOf(plan).get(id)?.length) continue;
      // Something could be plugged in, so the port counts as up.
      const [here, there] = [`p${number}v${vid}`, openEnd(number, vid)];
      site.link(device, `link add ${here} type veth peer name ${there}`);
      for (const end of [here, there]) site.link(device, `link set ${end} up`);
      site.link(device, `link set ${here} master ${wire}`);
    }
  }
}

/** Where a tag on a cable ends at a port: the interface there, and the wire it belongs to; an end device has none. */
function endOf(plan: Plan, id: string, tag: number, vid: number) {
  const { bridges, seats } = fabric(plan);
  const { device, number } = plan.port.get(id)!;
  const seat = seats.get(id);
  return seat
    ? { device, name: `p${number}t${tag}`, wire: wireOf(bridges[seat.bridge]!, vid) }
    : { device, name: tag === 0 ? `eth${number}` : `eth${number}.${tag}`, wire: null };
}

function layCables(site: Site, plan: Plan): void {
  const done = new Set<string>();
  const lagOf = (id: string) => plan.port.get(id)!.lag;
  for (const links of linksOf(plan).values())
    for (const { from, to } of links) {
      // A bundle is one cable: the first that passes anything.
      const ends = lagOf(from) !== null && lagOf(to) !== null ? [lagOf(from), lagOf(to)] : [from, to];
      for (const tag of tagsOf(plan)) {
        const key = [...ends.sort(), tag].join(' ');
        if (done.has(key)) continue;
        const joined = wiresOf(plan, from, to, tag);
        if (joined === null || joined === 'one-way') continue;
        const [a, b] = [endOf(plan, from, tag, joined[0]), endOf(plan, to, tag, joined[1])];
        if (!site.has(a.device) || !site.has(b.device)) continue;
        done.add(key);
        site.net.cable(a.device, a.name, b.device, b.name);
        for (const { device, name, wire } of [a, b])
          if (wire !== null) site.link(device, `link set ${name} master ${wire}`);
      }
    }
}

/** An interface in a VLAN that no port carries: it may have an address, and no carrier. */
const deadInterface = (site: Site, device: string, vid: number): void => deadWire(site, device, `vlan${vid}`);
function deadWire(site: Site, device: string, name: string): void {
  site.link(device, `link add name ${name} type veth peer name no-${name}`);
  site.link(device, `link set ${name} up`);
}

/** The interfaces of a box itself, one for each segment it has an address in. */
function layInside(site: Site, plan: Plan, bridge: Bridge): void {
  const { device } = bridge;
  const made = new Set<string>();
  for (const item of interfacesOf(plan, device))
    for (const { address, subnet: id } of addressesOn(plan, item.id)) {
      const { vlan, prefix } = plan.subnet.get(id)!;
      const vid = bridge.box.vlanAware ? plan.vlan.get(vlan)!.vid : 0;
      const name = `vlan${vid}`;
      if (wireOf(bridge, vid) !== name && !made.has(name)) deadInterface(site, device, vid);
      made.add(name);
      site.link(
        device,
        `addr add ${formatAddress(address)}/${ownSettings(item, address).length ?? prefix.length} dev ${name}${nodad(address)}`,
      );
    }
}

/** An uplink that can carry anything: its port is open and whole. Read off the records, whatever the rehearsal makes of them. */
const isUp = (plan: Plan, { port, enabled }: Uplink): boolean => {
  const socket = plan.port.get(port ?? '');
  return enabled && (!socket || (socket.role !== 'parked' && socket.enabled && !socket.defective));
};

/** The Internet gives way to nobody who is not let in: a translator further out, or a provider who bars it. */
function layUplinks(site: Site, plan: Plan, router: Router, barred: string[]): void {
  const { device } = router;
  const far = formatAddress(farAddress(plan));
  router.uplinks.forEach((uplink, i) => {
    if (!isUp(plan, uplink)) return;
    const outside = formatAddress(outsideAddress(plan, uplink));
    // The ruleset speaks of a port by its name in the configuration.
    const wan = plan.port.get(uplink.port ?? '')?.name || `wan${i}`;
    if (uplink.segment !== null) {
      const subnet = subnetsOf(plan, uplink.segment).find(({ prefix }) =>
        contains(prefix, outsideAddress(plan, uplink)),
      );
      const socket = uplink.port === null ? undefined : linksOf(plan).get(uplink.port)?.[0];
      const far = socket && plan.port.get(socket.to);
      if (!subnet) return;
      const takes = far && site.has(far.device) ? trafficOf(plan, far.id, uplink.port!, 0).takes : null;
      if (far && takes !== null) {
        const end = endOf(plan, far.id, 0, takes);
        site.net.cable(device.id, wan, far.device, end.name);
        site.link(far.device, `link set ${end.name} master ${end.wire!}`);
      } else {
        // Where it leads is not recorded, so the line counts as up.
        deadWire(site, device.id, wan);
        site.link(device.id, `link set no-${wan} up`);
      }
      site.link(device.id, `addr add ${outside}/${subnet.prefix.length} dev ${wan}`);
      const [gateway] = [...plan.address.values()].filter(
        (item) => item.gateway && item.subnet === subnet.id,
      );
      if (gateway)
        site.route(
          device.id,
          `route add default via ${formatAddress(gateway.address)} dev ${wan} metric ${i + 100}`,
        );
      return;
    }
    const end = `g${barred.length}x${i}${device.id.slice(-6)}`.slice(0, 15);
    site.net.cable(device.id, wan, INTERNET, end);
    site.link(device.id, `addr add ${outside}/32 dev ${wan}`);
    site.route(device.id, `route add ${far}/32 dev ${wan} metric ${i + 100}`);
    site.route(device.id, `route add default dev ${wan} metric ${i + 100}`);
    site.route(device.id, `rule add fwmark ${i + 1} lookup ${101 + i} priority ${101 + i}`);
    site.route(device.id, `route add default dev ${wan} table ${101 + i}`);
    site.route(INTERNET, `route add ${outside}/32 dev ${end}`);
    if (uplink.delegated !== null) {
      site.link(device.id, `addr add fe80::a/64 dev ${wan} nodad`);
      site.link(INTERNET, `addr add fe80::b/64 dev ${end} nodad`);
      site.route(device.id, `route add ::/0 via fe80::b dev ${wan} metric ${i + 100}`);
      site.route(device.id, `route add ::/0 via fe80::b dev ${wan} table ${101 + i}`);
      site.route(INTERNET, `route add ${formatPrefix(uplink.delegated)} via fe80::a dev ${end}`);
    }
    // Somebody in the Internet who tries inside addresses finds the gateway, as a neighbour at the provider’s could.
    for (const leg of router.legs)
      if (familyOf(leg.address) === 4)
        site.route(INTERNET, `route add ${formatPrefix(leg.prefix)} via ${outside} dev ${end} onlink`);
    // A translator further out keeps IPv4 out; a provider who bars everything, IPv6 too.
    const family = uplink.noForwards ? '' : 'meta nfproto ipv4 ';
    barred.push(letsForwardsIn(uplink).works === false ? `oifname "${end}" ${family}ct state new drop` : '');
  });
}

function layRouter(site: Site, plan: Plan, router: Router, barred: string[]): void {
  const { id } = router.device;
  for (const route of router.statics)
    site.route(id, `route add ${formatPrefix(route.prefix)} via ${formatAddress(route.via)}`);
  for (const { remote } of router.tunnels)
    for (const prefix of remote) site.route(id, `route add blackhole ${formatPrefix(prefix)}`);
  layUplinks(site, plan, router, barred);
}

/** An end device with what is really set on it. */
function layHost(site: Site, plan: Plan, device: string): IpAddress[] {
  const own: IpAddress[] = [];
  const socket = portsOf(plan, device).find(({ id }) => linksOf(plan).get(id)?.length);
  if (!socket) return own;
  const { to } = linksOf(plan).get(socket.id)![0]!;
  const { voice } = plan.port.get(to)!;
  const dead = new Set<string>();
  for (const item of interfacesOf(plan, device))
    for (const { address, subnet: id } of addressesOn(plan, item.id)) {
      const { vlan, prefix } = plan.subnet.get(id)!;
      const tag = plan.device.get(device)!.kind === 'phone' && voice === vlan ? plan.vlan.get(vlan)!.vid : 0;
      const dev = tag === 0 ? `eth${socket.number}` : `eth${socket.number}.${tag}`;
      if (wiresOf(plan, socket.id, to, tag) === null && !dead.has(dev)) {
        // Nothing it says is taken at the other end.
        dead.add(dev);
        deadWire(site, device, dev);
      }
      site.link(
        device,
        `addr add ${formatAddress(address)}/${ownSettings(item, address).length ?? prefix.length} dev ${dev}${nodad(address)}`,
      );
      own.push(address);
    }
  return own;
}

/** What an end device itself lets in: of services that are listed no other, and by its own firewall. */
function ownRules(plan: Plan, device: Device): string {
  const listed = [...plan.listener.group(device.id).values()].flatMap(({ protocol, port }) =>
    (protocol === 'both' ? ['tcp', 'udp'] : [protocol]).map((one) => `${one} dport ${port} accept`),
  );
  const near = interfacesOf(plan, device.id).flatMap((item) =>
    addressesOn(plan, item.id).map(({ address, subnet }) => {
      const length = ownSettings(item, address).length ?? plan.subnet.get(subnet)!.prefix.length;
      const word = familyOf(address) === 6 ? 'ip6' : 'ip';
      return `${word} daddr ${formatAddress(address)} ${word} saddr != ${formatPrefix(networkOf(address, length))} drop`;
    }),
  );
  const serves = interfacesOf(plan, device.id).some(({ id }) =>
    [...plan.pool.values()].some(({ servedBy }) => servedBy.includes(id)),
  );
  const dhcp = 'udp dport 67 accept';
  const all = listed.length === 0 && device.firewall !== 'as-listed';
  return [
    'table inet own {\nchain input {\ntype filter hook input priority filter; policy drop;',
    'iifname "lo" accept\nct state established,related accept',
    // What IPv6 needs to find a neighbour is no ping.
    'icmpv6 type != echo-request accept',
    // Who has no address yet is near.
    ...(serves ? [`ip saddr 0.0.0.0 ${dhcp}`] : []),
    ...(device.firewall === 'own-subnet' ? near : []),
    ...(device.firewall === 'as-listed' ? [] : ['meta l4proto { icmp, icmpv6 } accept']),
    ...(all ? ['accept'] : [...listed, ...(serves ? [dhcp] : [])]),
    '}\n}\n',
  ].join('\n');
}

const everything = (address: IpAddress): string => (familyOf(address) === 6 ? '::/0' : 'default');

/** The way out of who does not route: the gateway that is set, else the one of the subnet. */
function layDefault(site: Site, plan: Plan, device: string): void {
  for (const item of interfacesOf(plan, device))
    for (const { address, subnet } of addressesOn(plan, item.id)) {
      const usual = [...plan.address.values()].find((other) => other.gateway && other.subnet === subnet);
      const set = ownSettings(item, address).gateway;
      const gateway = set === undefined ? (usual?.address ?? null) : set;
      if (gateway !== null)
        site.route(device, `route add ${everything(address)} via ${formatAddress(gateway)}`);
    }
}

/**
 * What a router filters and translates. One without a filter translates all the same. One that keeps no track has the same lines,
 * and for answers lines of their own instead of what it would remember: who asks takes a port of its own, so an answer comes
 * from one of `ports`.
 */
function rulesetOf(plan: Plan, device: Device, today: string | null, ports: readonly number[]): string {
  const filter = filterOf(plan, device);
  if (filter === 'stateful') return nftRuleset(plan, device, today);
  const box = boxOf(plan, device.id)!;
  const tracking = withRecord(plan, 'box', box.id, { ...box, filter: 'stateful' });
  const text = nftRuleset(tracking, device, today);
  if (filter === 'none') return text.slice(text.indexOf('table ip dianome_translate {'));
  const answers = `tcp flags & (syn | ack) != syn accept\nudp sport { ${ports.join(', ')} } accept\nicmp type echo-reply accept\nicmpv6 type echo-reply accept`;
  return text
    .replaceAll('ct state established,related accept', answers)
    .replaceAll('ct state invalid drop', '');
}

export interface LaidNetwork {
  readonly net: Namespaces;
  /** End devices that have an address and a cable, by device id. */
  readonly hosts: readonly { readonly device: string; readonly address: IpAddress }[];
  /** The boxes that route. */
  readonly routers: readonly string[];
}

/** Makes the network. The caller closes it. */
export function layNetwork(plan: Plan, today: string | null, ports: readonly number[]): LaidNetwork {
  const site = new Site();
  try {
    const routers = routersIn(plan);
    const { bridges } = fabric(plan);
    const boxes = new Set(bridges.map(({ device }) => device));
    site.add(INTERNET, true);
    for (const { device } of bridges) {
      site.add(device, routers.get(device)?.routes ?? false);
      site.link(device, 'link set lo up');
    }
    const ends = [...plan.device.values()].filter(
      ({ id }) => !boxes.has(id) && !routers.has(id) && interfacesOf(plan, id).length > 0,
    );
    for (const { id } of ends) site.add(id, false);
    // Whoever is in the Internet is reached by every line of every provider.
    site.net.exec(INTERNET, 'sh', [
      '-c',
      'echo 0 > /proc/sys/net/ipv4/conf/all/arp_ignore; echo 0 > /proc/sys/net/ipv4/conf/default/arp_ignore',
    ]);
    site.link(INTERNET, `addr add ${formatAddress(farAddress(plan))}/32 dev lo`);
    site.link(INTERNET, `addr add ${formatAddress(farAddress(plan, 6))}/128 dev lo`);
    for (const bridge of bridges) layBridge(site, plan, bridge);
    layCables(site, plan);
    for (const bridge of bridges) layInside(site, plan, bridge);
    const barred: string[] = [];
    const hosts = ends.flatMap(({ id }) =>
      layHost(site, plan, id).map((address) => ({ device: id, address })),
    );
    for (const { id } of ends) layDefault(site, plan, id);
    for (const { device } of bridges) {
      const router = routers.get(device);
      if (router) layRouter(site, plan, router, barred);
      else layDefault(site, plan, device);
    }
    site.run();
    site.net.exec(
      INTERNET,
      'nft',
      ['-f', '-'],
      `table inet shut {\nchain output {\ntype filter hook output priority filter;\n${barred.join('\n')}\n}\n}\n`,
    );
    for (const device of ends) site.net.exec(device.id, 'nft', ['-f', '-'], ownRules(plan, device));
    for (const { device, routes } of routers.values()) {
      if (!routes || !boxes.has(device.id)) continue;
      const ruleset = rulesetOf(plan, device, today, ports);
      site.net.exec(device.id, 'nft', ['-f', '-'], ruleset);
    }
    return { net: site.net, hosts, routers: [...routers.keys()].filter((id) => boxes.has(id)) };
  } catch (error) {
    site.net.close();
    throw error;
  }
}
