import { formatAddress, formatPrefix, parsePrefix, prefixFamily } from '../address';
import {
  type Plan,
  siteOf,
  type Device,
  type Forward,
  type Uplink,
  type Zone,
  Refusal,
  addressesOn,
} from '../plan';
import {
  ruleHolds,
  rulesOf,
  type Span,
  filterOf,
  servicesSpans,
  spanOf,
  spansAt,
  spansOf,
  vlanSpans,
  ruleText,
  passing,
  ownMembers,
  zonesOf,
} from '../model/policy';
import { type Router, routersIn } from '../model/routing';
import { forwardedTo, forwardsOf, targetOf, turnsBack } from '../model/uplink';
import { legName, uplinkName } from './interface-names';
import { type Match, conditions, interfaces, plain, quoted } from './nft-match';

/**
 * The policy and the translations of a gateway as an nftables ruleset. Order as in the rehearsal: answers, explicit rules,
 * what forwards open, then the matrix. Who is refused inside is told so; from outside nothing is answered.
 */

interface Names {
  readonly legs: ReadonlyMap<string, string>;
  readonly uplinks: ReadonlyMap<string, string>;
}

class Writer {
  private readonly lines: string[] = [];
  private depth = 0;
  add(text: string): void {
    this.lines.push(`${'  '.repeat(this.depth)}${text}`);
  }
  block(head: string, body: () => void): void {
    this.add(`${head} {`);
    this.depth++;
    body();
    this.depth--;
    this.add('}');
  }
  rule(match: Match, verdict: string, comment: string, log: string | null = null): void {
    for (const condition of conditions(match))
      this.add(
        [condition, log && `log prefix ${quoted(log)}`, verdict, `comment ${quoted(comment)}`]
          .filter(Boolean)
          .join(' '),
      );
  }
  text = (): string => `${this.lines.join('\n')}\n`;
}

const REFUSE = 'reject with icmpx admin-prohibited';

/** Explicit rules from the top, as far as this box enforces them. They count for what passes and for the box itself. */
function explicit(out: Writer, plan: Plan, device: Device, today: string | null): void {
  rulesOf(plan).forEach((rule, i) => {
    if (!ruleHolds(rule, today) || (rule.device !== null && rule.device !== device.id)) return;
    const name = `rule ${i + 1}`;
    const services = rule.services.length === 0 ? null : servicesSpans(plan, rule.services);
    const match: Match = {
      from: rule.from.length === 0 ? null : spansOf(plan, rule.from),
      to: rule.to.length === 0 ? null : spansOf(plan, rule.to),
      services,
    };
    out.rule(
      match,
      rule.action === 'allow' ? 'accept' : REFUSE,
      `${name}: ${ruleText(plan, rule)}`,
      rule.log ? `${name} ` : null,
    );
  });
}

/**
 * The ways a zone sends or receives: on legs by address, at uplinks by interface. Behind another router its segments are outside
 * as well, so an address inside counts on legs only.
 */
function sides(
  plan: Plan,
  router: Router,
  zone: Zone,
  names: Names,
  word: 'iifname' | 'oifname',
): { spans: Span[] | null; before: string }[] {
  const spans = spansAt(plan, router, zone);
  const wires = ownMembers(plan, zone).uplinks.flatMap((id) => names.uplinks.get(id) ?? []);
  const inner = word === 'oifname' && router.uplinks.some(({ segment }) => segment !== null);
  const onLegs = inner ? interfaces('oifname !=', [...names.uplinks.values()]) : '';
  return [
    ...(spans.length > 0 ? [{ spans, before: onLegs }] : []),
    ...(wires.length > 0 ? [{ spans: null, before: interfaces(word, wires) }] : []),
  ];
}

/** What the matrix allows between zones. From outside by interface first, so that no inside address can be borrowed there. */
function matrix(out: Writer, plan: Plan, router: Router, names: Names): void {
  const wires = [...names.uplinks.values()];
  const between = (outside: boolean) => {
    for (const from of zonesOf(plan))
      for (const to of zonesOf(plan)) {
        const { decision, services } = passing(plan, from, to);
        if (decision === 'deny') continue;
        for (const sender of sides(plan, router, from, names, 'iifname')) {
          if ((sender.spans === null) !== outside) continue;
          const wish = decision === 'wish';
          const spans = wish
            ? ownMembers(plan, from)
                .vlans.filter((id) => plan.vlan.get(id)!.internet)
                .flatMap((id) => vlanSpans(plan, id))
            : sender.spans;
          for (const receiver of sides(plan, router, to, names, 'oifname'))
            out.rule(
              {
                from: spans,
                to: receiver.spans,
                services: decision === 'services' ? servicesSpans(plan, services) : null,
                before: [sender.before, receiver.before].filter(Boolean).join(' '),
              },
              'accept',
              `${from.name} to ${to.name}`,
            );
        }
      }
  };
  between(true);
  if (wires.length > 0)
    out.add(`${interfaces('iifname', wires)} drop comment "from outside nothing unasked"`);
  if (zonesOf(plan).length === 0) out.add('accept comment "no zones are recorded"');
  else between(false);
}

/** Who has no address of a segment yet, or talks on its wire only: a DHCP client, IPv6 link-local addresses (RFC 4291, 2.5.6). */
const WITHOUT_ADDRESS: readonly Span[] = ['0.0.0.0/32', '::/128', 'fe80::/10'].map((text) =>
  spanOf(parsePrefix(text)!.prefix),
);

/**
 * Who gets what from the box itself. Its own segments count by interface and by address: who comes that way over another router
 * is of a segment further away.
 */
function itself(out: Writer, plan: Plan, router: Router, names: Names): void {
  const gateway = zonesOf(plan).find((zone) => zone.gateway);
  const wires = [...names.uplinks.values()];
  const answer = (zone: Zone, before: string, from: Span[] | null) => {
    if (!gateway) return;
    const { decision, services } = passing(plan, zone, gateway);
    if (decision !== 'allow' && decision !== 'services') return;
    const wanted = decision === 'allow' ? null : servicesSpans(plan, services);
    out.rule({ from, to: null, services: wanted, before }, 'accept', `${zone.name} to the box itself`);
  };
  for (const zone of zonesOf(plan))
    for (const id of ownMembers(plan, zone).uplinks) {
      const name = names.uplinks.get(id);
      if (name) answer(zone, interfaces('iifname', [name]), null);
    }
  for (const uplink of router.uplinks)
    if (uplink.addressing === 'dhcp')
      out.add(
        `iifname "${names.uplinks.get(uplink.id)}" udp sport 67 udp dport 68 accept comment "its own address"`,
      );
  if (wires.length > 0)
    out.add(`${interfaces('iifname', wires)} drop comment "from outside nothing unasked"`);
  if (zonesOf(plan).length === 0) return out.add('accept comment "no zones are recorded"');
  for (const zone of zonesOf(plan)) {
    const near = ownMembers(plan, zone).vlans.filter((vlan) => names.legs.has(vlan));
    for (const vlan of near)
      answer(zone, interfaces('iifname', [names.legs.get(vlan)!]), [
        ...vlanSpans(plan, vlan),
        ...WITHOUT_ADDRESS,
      ]);
    const own = near.flatMap((vlan) => vlanSpans(plan, vlan));
    const beyond = spansAt(plan, router, zone).filter(([from]) => !own.some((span) => span[0] === from));
    if (beyond.length > 0) answer(zone, '', beyond);
  }
}

const protocolsOf = ({ protocol }: Forward): readonly ('tcp' | 'udp')[] =>
  protocol === 'both' ? ['tcp', 'udp'] : [protocol];

interface Opened {
  readonly forward: Forward;
  readonly uplink: Uplink;
  readonly target: string;
}

/** The forwards that are in force, with the address each leads to. */
const openedBy = (plan: Plan, router: Router): Opened[] =>
  router.uplinks
    .filter(({ noForwards }) => !noForwards)
    .flatMap((uplink) =>
      forwardsOf(plan, uplink.id)
        .filter(({ enabled }) => enabled)
        .flatMap((forward) => {
          const target = forwardedTo(plan, forward);
          return target === null ? [] : [{ forward, uplink, target: formatAddress(target) }];
        }),
    );

/** A shift of port numbers is a line for each port; so many of them nft still reads at once. */
const SHIFTED = 200_000;

function refuseTooMany(plan: Plan, device: Device, opened: readonly Opened[]): void {
  let lines = 0;
  for (const { forward } of opened)
    if (forward.from !== forward.to && forward.from !== forward.inside)
      lines +=
        (forward.to - forward.from + 1) * protocolsOf(forward).length * (turnsBack(plan, forward) ? 2 : 1);
  if (lines > SHIFTED)
    throw new Refusal(
      'bad-input',
      `The forwards of ${device.name} lead ${lines.toLocaleString('en')} ports to other numbers, a line each in the ruleset; ${SHIFTED.toLocaleString('en')} fit. Let wide forwards keep their port numbers.`,
      [{ table: 'device', id: device.id }],
    );
}

const portsIn = (from: number, to: number): string => (from === to ? String(from) : `${from}-${to}`);

/** Who called the target by its one-to-one address did not come by the forward, though its address was changed too. */
function knownAs(plan: Plan, router: Router, { target }: Forward): string {
  const subnets = addressesOn(plan, target).map(({ subnet }) => subnet);
  const outside = router.translations.filter(({ subnet }) => subnets.includes(subnet));
  return outside.length > 0
    ? `ct original ip daddr != { ${outside.map((item) => formatPrefix(item.outside)).join(', ')} } `
    : '';
}

/** Who is called by the outside address of an uplink from inside. One that changes is the box’s own, and none of those it has besides. */
function outsideIs(router: Router, uplink: Uplink, names: Names): string {
  if (typeof uplink.address === 'number') return `ip daddr ${formatAddress(uplink.address)}`;
  const known = [...router.legs, ...router.uplinks].flatMap(({ address }) =>
    typeof address === 'number' ? [formatAddress(address)] : [],
  );
  const others = known.length > 0 ? ` ip daddr != { ${[...new Set(known)].join(', ')} }` : '';
  return `${interfaces('iifname !=', [...names.uplinks.values()])} fib daddr type local${others}`;
}

/**
 * Answers leave by the uplink the question came in by: each conversation is marked with the number of its uplink, and the routing
 * has a table for each mark.
 */
function marks(out: Writer, names: Names): void {
  const wires = [...names.uplinks.values()];
  out.block('chain remember', () => {
    out.add('type filter hook prerouting priority mangle; policy accept;');
    wires.forEach((name, i) => out.add(`iifname "${name}" ct state new ct mark set ${i + 1}`));
    out.add(`${interfaces('iifname !=', wires)} ct mark != 0 meta mark set ct mark`);
  });
  out.block('chain answer', () => {
    out.add('type route hook output priority mangle; policy accept;');
    out.add('ct mark != 0 meta mark set ct mark');
  });
}

function translations(out: Writer, plan: Plan, router: Router, names: Names): void {
  const opened = openedBy(plan, router);
  out.block('chain prerouting', () => {
    out.add('type nat hook prerouting priority dstnat; policy accept;');
    for (const { forward, uplink, target } of opened)
      for (const protocol of protocolsOf(forward)) {
        const { from, to, inside } = forward;
        const sources = forward.sources.filter((prefix) => prefixFamily(prefix) === 4);
        const into =
          from === to
            ? `dnat to ${target}:${inside}`
            : from === inside
              ? `dnat to ${target}`
              : `dnat to ${target} : ${protocol} dport map { ${Array.from({ length: to - from + 1 }, (_, i) => `${from + i} : ${inside + i}`).join(', ')} }`;
        const who = sources.length > 0 ? `ip saddr { ${sources.map(formatPrefix).join(', ')} } ` : '';
        const comment = `comment ${quoted(`forward to ${targetOf(plan, forward).name}`)}`;
        const ports = `${protocol} dport ${portsIn(from, to)}`;
        // Only what is sent to the box itself: others outside may send it packets for inside addresses.
        if (sources.length > 0 || forward.sources.length === 0)
          out.add(
            `iifname "${names.uplinks.get(uplink.id)}" fib daddr type local ${who}${ports} ${into} ${comment}`,
          );
        if (turnsBack(plan, forward))
          out.add(`${outsideIs(router, uplink, names)} ${ports} ${into} ${comment}`);
      }
    for (const item of router.translations) {
      const inside = plan.subnet.get(item.subnet)!.prefix;
      if (typeof inside.address === 'number')
        out.add(`dnat ip prefix to ip daddr map { ${formatPrefix(item.outside)} : ${formatPrefix(inside)} }`);
    }
  });
  out.block('chain postrouting', () => {
    out.add('type nat hook postrouting priority srcnat; policy accept;');
    for (const name of names.uplinks.values()) out.add(`oifname "${name}" masquerade`);
    if (opened.some(({ forward }) => forward.hairpin) || router.translations.length > 0)
      for (const { prefix } of router.legs)
        if (typeof prefix.address === 'number') {
          const net = formatPrefix(prefix);
          out.add(
            `ip saddr ${net} ip daddr ${net} ct status dnat masquerade comment "answers come back this way"`,
          );
        }
    for (const item of router.translations) {
      const subnet = plan.subnet.get(item.subnet)!;
      const own = names.legs.get(subnet.vlan);
      if (typeof subnet.prefix.address === 'number')
        out.add(
          `${own ? `oifname != "${own}" ` : ''}snat ip prefix to ip saddr map { ${formatPrefix(subnet.prefix)} : ${formatPrefix(item.outside)} }`,
        );
    }
  });
}

/**
 * The ruleset of a gateway, to be read with `nft -f`. Refuses for a box that keeps no track of conversations: its lines are
 * in the rule schedule.
 */
export function nftRuleset(plan: Plan, device: Device, today: string | null): string {
  const router = routersIn(plan).get(device.id);
  if (!router?.routes || filterOf(plan, device) !== 'stateful')
    throw new Refusal(
      'bad-input',
      `${device.name} does not filter conversations, so it has no such ruleset; its lines are in the rule schedule.`,
      [{ table: 'device', id: device.id }],
    );
  refuseTooMany(plan, device, openedBy(plan, router));
  const names: Names = {
    legs: new Map(router.legs.map(({ vlan }) => [vlan, legName(plan, device.id, vlan)])),
    uplinks: new Map(router.uplinks.map((uplink, i) => [uplink.id, uplinkName(plan, uplink, i)])),
  };
  const out = new Writer();
  const several = names.uplinks.size > 1;
  const remark = (text: string) => out.add(`# ${plain(text)}`);
  remark(`${siteOf(plan).name}: ${device.name}`);
  for (const [vlan, name] of names.legs) remark(`${name}: ${plan.vlan.get(vlan)!.name}`);
  for (const [id, name] of names.uplinks) remark(`${name}: uplink ${plan.uplink.get(id)!.name}`);
  if (several)
    [...names.uplinks.values()].forEach((name, i) =>
      remark(
        `answers over ${name} need: ip rule add fwmark ${i + 1} lookup ${101 + i}, with a default route by ${name} in table ${101 + i}`,
      ),
    );
  out.add('add table inet dianome_filter');
  out.add('delete table inet dianome_filter');
  out.add('add table ip dianome_translate');
  out.add('delete table ip dianome_translate');
  const common = () => {
    out.add('ct state established,related accept');
    out.add('ct state invalid drop');
  };
  out.block('table inet dianome_filter', () => {
    out.block('chain input', () => {
      out.add('type filter hook input priority filter; policy drop;');
      common();
      out.add('iifname "lo" accept');
      out.add(
        'icmpv6 type { nd-neighbor-solicit, nd-neighbor-advert, nd-router-solicit, nd-router-advert } accept',
      );
      explicit(out, plan, device, today);
      itself(out, plan, router, names);
      out.add(REFUSE);
    });
    out.block('chain forward', () => {
      out.add('type filter hook forward priority filter; policy drop;');
      common();
      explicit(out, plan, device, today);
      for (const { forward, target } of openedBy(plan, router))
        for (const protocol of protocolsOf(forward)) {
          const last = forward.inside + forward.to - forward.from;
          out.add(
            `ct status dnat ${knownAs(plan, router, forward)}ip daddr ${target} ${protocol} dport ${portsIn(forward.inside, last)} accept comment ${quoted(`forward to ${targetOf(plan, forward).name}`)}`,
          );
        }
      matrix(out, plan, router, names);
      out.add(REFUSE);
    });
    if (several) marks(out, names);
  });
  out.block('table ip dianome_translate', () => translations(out, plan, router, names));
  return out.text();
}
