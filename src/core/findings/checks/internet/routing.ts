import {
  type Prefix,
  formatAddress,
  contains,
  familyOf,
  formatPrefix,
  networkOf,
  overlaps,
  prefixFamily,
} from '../../../address';
import { notRouted, plainVlansOf, routersOf, type Plan, type Remedy, type Translation } from '../../../plan';
import { homeOf } from '../../../rehearse';
import { isOneToOne, isSame, routersAt, routersIn } from '../../../model/routing';
import { letsForwardsIn } from '../../../model/uplink';
import { internetCheck, setField } from './shared';

/** Routes, tunnels, 1:1 translation, and routers behind routers. */

const routeNowhere = internetCheck('route-nowhere', function* (plan) {
  for (const route of plan.route.values()) {
    const router = routersIn(plan).get(route.device);
    const near = router?.legs.some(({ prefix }) => contains(prefix, route.via)) ?? false;
    const next = routersAt(plan, route.via).some(({ routes }) => routes);
    const refused = notRouted(route.prefix, route.via);
    if (near && next && refused === null) continue;
    yield {
      severity: 'stop',
      on: { table: 'route', id: route.id },
      also: [{ table: 'device', id: route.device }],
      what: `The route to ${formatPrefix(route.prefix)} leads nowhere`,
      because:
        refused ??
        (near
          ? `No router of this site has ${formatAddress(route.via)}.`
          : `${formatAddress(route.via)} is in no network ${plan.device.get(route.device)!.name} stands in, so it cannot be asked.`),
      remedies: [{ label: 'Remove the route', operation: 'removeRoute', input: { route: route.id } }],
    };
  }
});

const noDefault = internetCheck('no-default-route', function* (plan) {
  // One router alone without an uplink is a site without one, which is said of its port.
  if (routersOf(plan).length < 2) return;
  const routing = [...routersIn(plan).values()].filter(({ routes }) => routes);
  if (routing.length < 2) return;
  for (const router of routing) {
    if (router.uplinks.length > 0) continue;
    if (router.statics.some(({ prefix }) => prefix.length === 0 && prefixFamily(prefix) === 4)) continue;
    const wished = plainVlansOf(plan).filter(
      ({ id, internet }) => internet && isSame(homeOf(plan, id).router, router),
    );
    if (wished.length === 0) continue;
    const others = routing.filter(({ uplinks }) => uplinks.length > 0);
    const remedies: Remedy[] = others.flatMap((other) =>
      other.legs
        .filter(
          ({ address }) =>
            familyOf(address) === 4 && router.legs.some(({ prefix }) => contains(prefix, address)),
        )
        .slice(0, 1)
        .map(({ address }) => ({
          label: `Send everything else to ${other.device.name} at ${formatAddress(address)}`,
          operation: 'addRoute',
          input: { device: router.device.id, prefix: '0.0.0.0/0', via: formatAddress(address) },
        })),
    );
    yield {
      severity: 'stop',
      on: { table: 'device', id: router.device.id },
      also: wished.map(({ id }) => ({ table: 'vlan' as const, id })),
      what: `${router.device.name} has no default route`,
      because: `It knows no way to the Internet, which ${wished.map(({ id }) => plan.vlan.get(id)!.name).join(', ')} may reach.`,
      remedies,
    };
  }
});

const tunnelShut = internetCheck('tunnel-cannot-come', function* (plan) {
  for (const tunnel of plan.tunnel.values()) {
    if (!tunnel.enabled || tunnel.initiates) continue;
    const uplinks = [...plan.uplink.values()].filter(
      ({ id, device }) => device === tunnel.device && (tunnel.uplink === null || tunnel.uplink === id),
    );
    const open = uplinks.find((uplink) => letsForwardsIn(uplink).works !== false);
    if (open) continue;
    const [first] = uplinks;
    yield {
      severity: 'stop',
      on: { table: 'tunnel', id: tunnel.id },
      what: `The tunnel ${tunnel.name} is never opened`,
      because: first
        ? `The other side is to open it, and nothing gets in on ${first.name}: ${letsForwardsIn(first).why}.`
        : 'The other side is to open it, and its router has no uplink to come in by.',
      remedies: [
        {
          label: 'Open it from this side',
          operation: 'edit',
          input: { table: 'tunnel', id: tunnel.id, set: { initiates: true }, seen: { initiates: false } },
        },
      ],
    };
  }
});

const sameFarNet = internetCheck('tunnel-overlap', function* (plan) {
  const tunnels = [...plan.tunnel.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const [i, tunnel] of tunnels.entries()) {
    const other = tunnels
      .slice(0, i)
      .find(({ remote }) => remote.some((a) => tunnel.remote.some((b) => overlaps(a, b))));
    if (!other) continue;
    yield {
      severity: 'stop',
      on: { table: 'tunnel', id: tunnel.id },
      also: [{ table: 'tunnel', id: other.id }],
      what: `${tunnel.name} and ${other.name} lead to the same network`,
      because: `${tunnel.remote.map(formatPrefix).join(', ')} and ${other.remote.map(formatPrefix).join(', ')} overlap: a packet for both can take one tunnel only.`,
    };
  }
});

const untranslated = ({ id }: Translation): Remedy => ({
  label: 'Remove the translation',
  operation: 'removeTranslation',
  input: { translation: id },
});

/** Does a network overlap no subnet, and nothing that another translation stands for? */
const isFree = (plan: Plan, network: Prefix, { id }: Translation): boolean =>
  ![...plan.subnet.values()].some(({ prefix }) => overlaps(prefix, network)) &&
  ![...plan.translation.values()].some((item) => item.id !== id && overlaps(item.outside, network));

const taken = internetCheck('translation-overlap', function* (plan) {
  const items = [...plan.translation.values()].sort((a, b) => (a.id < b.id ? -1 : 1));
  for (const [i, item] of items.entries()) {
    const subnet = [...plan.subnet.values()].find(({ prefix }) => overlaps(prefix, item.outside));
    const other = items.slice(0, i).find(({ outside }) => overlaps(outside, item.outside));
    if (!subnet && !other) continue;
    const whose = subnet ? plan.vlan.get(subnet.vlan)!.name : 'another translation';
    yield {
      severity: 'stop',
      on: { table: 'translation', id: item.id },
      also: [subnet ? { table: 'subnet', id: subnet.id } : { table: 'translation', id: other!.id }],
      what: `${formatPrefix(item.outside)} is taken already`,
      because: `It overlaps ${whose}: who is asked for there would be two.`,
      remedies: [untranslated(item)],
    };
  }
});

const uneven = internetCheck('translation-size', function* (plan) {
  for (const item of plan.translation.values()) {
    if (isOneToOne(plan, item)) continue;
    const { id, prefix, vlan } = plan.subnet.get(item.subnet)!;
    const family = prefixFamily(prefix);
    const sameFamily = prefixFamily(item.outside) === family;
    const fitting = networkOf(item.outside.address, prefix.length);
    const outside = formatPrefix(fitting);
    yield {
      severity: 'stop',
      on: { table: 'translation', id: item.id },
      also: [{ table: 'subnet', id }],
      what: `${formatPrefix(item.outside)} has not the size of ${formatPrefix(prefix)}`,
      because: sameFamily
        ? `One to one needs a /${prefix.length}: each host of ${plan.vlan.get(vlan)!.name} keeps its place.`
        : `${plan.vlan.get(vlan)!.name} has IPv${family} addresses there: one to one needs an IPv${family} network of the same size.`,
      remedies: [
        ...(sameFamily && isFree(plan, fitting, item)
          ? [
              setField(
                `Translate to ${outside}`,
                'translation',
                item.id,
                'outside',
                outside,
                formatPrefix(item.outside),
              ),
            ]
          : []),
        untranslated(item),
      ],
    };
  }
});

const insideNat = internetCheck('double-nat-inside', function* (plan) {
  for (const uplink of plan.uplink.values()) {
    if (!uplink.enabled || uplink.segment === null) continue;
    const inner = plan.device.get(uplink.device)!.name;
    const outer = homeOf(plan, uplink.segment).router?.device.name;
    yield {
      severity: outer ? 'note' : 'stop',
      on: { table: 'uplink', id: uplink.id },
      also: [{ table: 'vlan', id: uplink.segment }],
      what: outer ? `${inner} translates behind ${outer}` : `${inner} stands behind nobody`,
      because: outer
        ? `Two translations one after the other: nothing gets in from outside unless both forward it, and ${outer} sees one address for all behind ${inner}.`
        : `${plan.vlan.get(uplink.segment)!.name}, in which its outside stands, has no router that leads on.`,
    };
  }
});

export const routingChecks = [routeNowhere, noDefault, tunnelShut, sameFarNet, taken, uneven, insideNat];
