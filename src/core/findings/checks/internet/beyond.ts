import { formatAddress } from '../../../address/ip';
import { contains, formatPrefix, overlaps } from '../../../address/prefix';
import { routersOf } from '../../../plan/view';
import { homeOf } from '../../../rehearse/classes';
import { holdersOf, routersIn } from '../../../routing/router';
import { EF, collisions, isPinned } from '../../../uplink/voice-box';
import { letsForwardsIn } from '../../../uplink/way-out';
import { linksOf, portsOf } from '../../../switching/wiring';
import type { Uplink } from '../../../plan/records';
import type { Remedy, SiteCheck } from '../../finding';
import { internetCheck } from './shared';

/** Routes, tunnels, 1:1 translation, and the telephone box kept inside. */

const check = (id: string, find: SiteCheck['find']): SiteCheck => {
  const base = internetCheck(id, find);
  return { ...base, reads: [...base.reads, 'route', 'tunnel', 'translation', 'voiceBox', 'subnet', 'vlan'] };
};

const routeNowhere = check('route-nowhere', function* (plan) {
  for (const route of plan.route.values()) {
    const router = routersIn(plan).get(route.device);
    const near = router?.legs.some(({ prefix }) => contains(prefix, route.via)) ?? false;
    const next = holdersOf(plan, route.via).some(
      ({ interface: item }) => routersIn(plan).get(plan.interface.get(item)!.device)?.routes,
    );
    if (near && next) continue;
    yield {
      severity: 'stop',
      on: { table: 'route', id: route.id },
      also: [{ table: 'device', id: route.device }],
      what: `The route to ${formatPrefix(route.prefix)} leads nowhere`,
      because: near
        ? `No router of this site has ${formatAddress(route.via)}.`
        : `${formatAddress(route.via)} is in no network ${plan.device.get(route.device)!.name} stands in, so it cannot be asked.`,
      remedies: [{ label: 'Remove the route', operation: 'removeRoute', input: { route: route.id } }],
    };
  }
});

const noDefault = check('no-default-route', function* (plan) {
  // One router alone without an uplink is a site without one, which is said of its port.
  if (routersOf(plan).length < 2) return;
  const routing = [...routersIn(plan).values()].filter(({ routes }) => routes);
  if (routing.length < 2) return;
  for (const router of routing) {
    if (router.uplinks.length > 0) continue;
    if (router.statics.some(({ prefix }) => prefix.length === 0)) continue;
    const wished = [...plan.vlan.values()].filter(
      ({ id, internet }) => internet && homeOf(plan, id).router === router,
    );
    if (wished.length === 0) continue;
    const others = routing.filter(({ uplinks }) => uplinks.length > 0);
    const remedies: Remedy[] = others.flatMap((other) =>
      other.legs
        .filter(({ address }) => router.legs.some(({ prefix }) => contains(prefix, address)))
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
      because: `It knows no way to the Internet, which ${wished.map(({ name }) => name).join(', ')} may reach.`,
      remedies,
    };
  }
});

const tunnelShut = check('tunnel-cannot-come', function* (plan) {
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

const sameFarNet = check('tunnel-overlap', function* (plan) {
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

const taken = check('translation-overlap', function* (plan) {
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
      remedies: [
        { label: 'Remove the translation', operation: 'removeTranslation', input: { translation: item.id } },
      ],
    };
  }
});

const voiceBox = check('voice-box', function* (plan) {
  for (const box of plan.voiceBox.values()) {
    const { name } = plan.device.get(box.device)!;
    const uplink = plan.uplink.get(box.uplink)!;
    const collides = collisions(plan, box);
    const set: Record<string, unknown> = {};
    const parts: string[] = [];
    if (!isPinned(plan, box))
      parts.push(
        'it has no address of its own here, fixed or bound to its MAC, so nothing can be kept for it',
      );
    if (collides.length > 0) parts.push(`its own network collides with ${collides.join(', ')}`);
    if (box.needsTag && !box.tagRepeated) {
      parts.push(
        `it looks for the provider’s tag${uplink.providerVlan === null ? '' : ` ${uplink.providerVlan}`}, and the inside port does not repeat it`,
      );
      set.tagRepeated = true;
    }
    if (box.dscp !== EF) {
      parts.push(`its voice is marked ${box.dscp} instead of EF ${EF} (RFC 3246)`);
      set.dscp = EF;
    }
    if (!box.firstInQueue) {
      parts.push('other traffic is not kept behind it in the queue');
      set.firstInQueue = true;
    }
    if (parts.length === 0) continue;
    const silent = collides.length > 0 || set.tagRepeated !== undefined;
    const mendable = isPinned(plan, box) && collides.length === 0;
    yield {
      severity: silent ? 'stop' : 'fix',
      on: { table: 'voiceBox', id: box.id },
      also: [{ table: 'device', id: box.device }],
      what: `Telephones at ${name} ${silent ? 'stay silent' : 'may stutter or be lost'}`,
      because: `Kept behind the gateway for the telephones, but ${parts.join('; ')}.`,
      remedies: mendable
        ? [
            {
              label: 'Set tag, marking and queue as it needs them',
              operation: 'edit',
              input: { table: 'voiceBox', id: box.id, set },
            },
          ]
        : [],
    };
  }
});

const unpowered = check('voice-box-power', function* (plan) {
  for (const box of plan.voiceBox.values()) {
    if (box.backedUp) continue;
    yield {
      severity: 'note',
      on: { table: 'voiceBox', id: box.id },
      also: [{ table: 'device', id: box.device }],
      what: `No call gets out of ${plan.device.get(box.device)!.name} when the mains fail`,
      because:
        'Gateway and box are on the mains alone: emergency calls and alarm lines are lost with them. Keep another way to call.',
    };
  }
});

/** A provider's router passes everything on to one gateway only. */
const twoExposed = check('exposed-twice', function* (plan) {
  const first = new Map<string, Uplink>();
  for (const uplink of [...plan.uplink.values()].sort((a, b) => (a.id < b.id ? -1 : 1))) {
    if (!uplink.enabled || uplink.upstream !== 'routing' || uplink.passes !== 'everything') continue;
    if (uplink.network === null) continue;
    const key = formatPrefix(uplink.network);
    const other = first.get(key);
    if (!other) {
      first.set(key, uplink);
      continue;
    }
    yield {
      severity: 'fix',
      on: { table: 'uplink', id: uplink.id },
      also: [{ table: 'uplink', id: other.id }],
      what: `${uplink.name} and ${other.name} are both to get everything`,
      because: `Both stand behind the router of ${key}, which can pass everything on to one of them; forwards of the other get in only where they are entered there one by one.`,
      remedies: [
        {
          label: `Only the listed ports to ${uplink.name}`,
          operation: 'edit',
          input: {
            table: 'uplink',
            id: uplink.id,
            set: { passes: 'listed' },
            seen: { passes: 'everything' },
          },
        },
      ],
    };
  }
});

const insideNat = check('double-nat-inside', function* (plan) {
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

const telephoneLost = check('failover-loses-telephone', function* (plan) {
  for (const box of plan.voiceBox.values()) {
    const uplink = plan.uplink.get(box.uplink)!;
    const others = [...plan.uplink.values()].filter(({ id, enabled }) => enabled && id !== uplink.id);
    if (others.length === 0) continue;
    yield {
      severity: 'note',
      on: { table: 'voiceBox', id: box.id },
      also: [{ table: 'uplink', id: uplink.id }],
      what: `The telephones do not follow to ${others[0]!.name}`,
      because: `${plan.device.get(box.device)!.name} registers only over ${uplink.name}. When that fails, everything else goes on over ${others.map(({ name }) => name).join(' or ')}, and no call does, emergency calls included.`,
    };
  }
});

/** Whoever is plugged into the provider's box in front of the gateway is outside, whatever its address says. */
const upstream = check('device-upstream', function* (plan) {
  const links = linksOf(plan);
  const named = new Set<string>();
  for (const uplink of plan.uplink.values()) {
    if (uplink.port === null || uplink.segment !== null) continue;
    const boxes = (links.get(uplink.port) ?? [])
      .map(({ to }) => plan.device.get(plan.port.get(to)!.device)!)
      .filter(({ kind }) => kind === 'provider-box');
    for (const box of boxes)
      for (const port of portsOf(plan, box.id))
        for (const { to } of links.get(port.id) ?? []) {
          const device = plan.device.get(plan.port.get(to)!.device)!;
          if (device.id === uplink.device || device.kind === 'gateway' || named.has(port.id)) continue;
          named.add(port.id);
          yield {
            severity: 'fix',
            on: { table: 'port', id: port.id },
            also: [
              { table: 'device', id: device.id },
              { table: 'uplink', id: uplink.id },
            ],
            what: `${device.name} is plugged in in front of the gateway`,
            because: `It hangs on ${box.name}, upstream of ${plan.device.get(uplink.device)!.name}: no rule of this site protects it, and nobody inside is kept from it by one.`,
          };
        }
  }
});

export const beyondChecks: readonly SiteCheck[] = [
  routeNowhere,
  noDefault,
  tunnelShut,
  sameFarNet,
  taken,
  voiceBox,
  unpowered,
  telephoneLost,
  upstream,
  insideNat,
  twoExposed,
];
