import { formatPrefix, overlaps, samePrefix } from '../../../address';
import type { Remedy, Plan, Uplink } from '../../../plan';
import { linksOf, portsOf } from '../../../model/wiring';
import { uplinksOf, translatorsOf } from '../../../model/uplink';
import { internetCheck, onUplink } from './shared';

/** What stands between a gateway and its provider. */

const overlapping = internetCheck('uplinks-overlap', function* (plan) {
  const uplinks = [...uplinksOf(plan)].filter(({ enabled, network }) => enabled && network !== null);
  for (const [i, uplink] of uplinks.entries()) {
    const other = uplinks
      .slice(0, i)
      .find(({ device, network }) => device === uplink.device && overlaps(network!, uplink.network!));
    if (!other) continue;
    yield {
      severity: 'stop',
      on: onUplink(uplink),
      also: [onUplink(other)],
      what: `${other.name} and ${uplink.name} have the same network outside`,
      because: `${formatPrefix(other.network!)} and ${formatPrefix(uplink.network!)} overlap: ${plan.device.get(uplink.device)!.name} cannot tell by which of the two it reaches what stands there. Give one of the boxes upstream another network.`,
    };
  }
});

/** Does the same router upstream pass everything on to somebody else already? It can to one only. */
const exposedBeside = (plan: Plan, { id, network }: Uplink): boolean =>
  uplinksOf(plan).some(
    (other) =>
      other.id !== id &&
      other.enabled &&
      other.upstream === 'routing' &&
      other.passes === 'everything' &&
      other.network !== null &&
      network !== null &&
      samePrefix(other.network, network),
  );

const doubleNat = internetCheck('double-nat', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    const translators = translatorsOf(uplink);
    // Behind a router of this site it is told of both.
    if (!uplink.enabled || translators.length === 0 || uplink.segment !== null) continue;
    const gateway = plan.device.get(uplink.device)!.name;
    const routed = translators.includes('upstream-router');
    if (routed && uplink.passes === 'everything') continue;
    const count = translators.length + 1;
    const who = routed
      ? `${gateway} and the provider’s box upstream`
      : translators.includes('provider')
        ? `${gateway} and the provider, who shares one address among customers,`
        : `${gateway} and some router further out`;
    const mend = (how: 'bridge' | 'expose', label: string) =>
      ({
        label,
        operation: 'endDoubleNat',
        input: { uplink: uplink.id, how },
      }) satisfies Remedy;
    yield {
      severity: routed ? 'fix' : 'note',
      on: onUplink(uplink),
      what: `${count === 2 ? 'Two' : 'Three'} routers translate addresses on ${uplink.name}`,
      because: `${who} translate one after the other: nothing gets in from outside${routed ? ' unless both are told to pass it on' : ', whatever is forwarded here'}.`,
      remedies: routed
        ? [
            ...(translators.length === 1 ? [mend('bridge', 'Have the box upstream bridged')] : []),
            ...(exposedBeside(plan, uplink)
              ? []
              : [mend('expose', 'Have it pass everything on to this gateway')]),
          ]
        : [],
    };
  }
});

/** A provider's router passes everything on to one gateway only. */
const twoExposed = internetCheck('exposed-twice', function* (plan) {
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

/** Whoever is plugged into the provider's box in front of the gateway is outside, whatever its address says. */
const upstream = internetCheck('device-upstream', function* (plan) {
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

export const upstreamChecks = [overlapping, doubleNat, twoExposed, upstream];
