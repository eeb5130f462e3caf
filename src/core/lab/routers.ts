import { contains, familyOf, formatAddress, formatPrefix } from '../address';
import { nftRuleset } from '../formats';
import { filterOf } from '../model/policy';
import type { Router } from '../model/routing';
import { letsForwardsIn } from '../model/uplink';
import { linksOf } from '../model/wiring';
import { type Device, type Plan, type Uplink, boxOf, subnetsOf, withRecord } from '../plan';
import { farAddress, outsideAddress } from '../rehearse';
import { deadWire, endOf } from './boxes';
import { INTERNET, type Site } from './site';
import { trafficOf } from './wires';

/** What routes, its uplinks with the Internet behind them, and its rulesets. */

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
        site.cable(device.id, wan, far.device, end.name);
        if (end.wire !== null) site.link(far.device, `link set ${end.name} master ${end.wire}`);
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
    site.cable(device.id, wan, INTERNET, end);
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

export function layRouter(site: Site, plan: Plan, router: Router, barred: string[]): void {
  const { id } = router.device;
  for (const route of router.statics)
    site.route(id, `route add ${formatPrefix(route.prefix)} via ${formatAddress(route.via)}`);
  for (const { remote } of router.tunnels)
    for (const prefix of remote) site.route(id, `route add blackhole ${formatPrefix(prefix)}`);
  layUplinks(site, plan, router, barred);
}

/**
 * What a router filters and translates. One without a filter translates all the same. One that keeps no track has the same lines,
 * and for answers lines of their own instead of what it would remember: who asks takes a port of its own, so an answer comes
 * from one of `ports`.
 */
export function rulesetOf(
  plan: Plan,
  device: Device,
  today: string | null,
  ports: readonly number[],
): string {
  const filter = filterOf(plan, device);
  if (filter === 'stateful') return nftRuleset(plan, device, today);
  const box = boxOf(plan, device.id)!;
  const tracking = withRecord(plan, 'box', box.id, { ...box, layer3: true, filter: 'stateful' });
  const text = nftRuleset(tracking, device, today);
  if (filter === 'none') return text.slice(text.indexOf('table ip dianome_translate {'));
  const answers = `tcp flags & (syn | ack) != syn accept\nudp sport { ${ports.join(', ')} } accept\nicmp type echo-reply accept\nicmpv6 type echo-reply accept`;
  return text
    .replaceAll('ct state established,related accept', answers)
    .replaceAll('ct state invalid drop', '');
}
