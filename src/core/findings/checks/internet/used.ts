import { covers, formatPrefix, prefixFamily } from '../../../address';
import { freePlace64 } from '../../../edit';
import { linksOf } from '../../../model/wiring';
import {
  forwardedTo,
  kindOfAddress,
  letsForwardsIn,
  listenersOf,
  targetOf,
  uplinkDown,
  uplinksOf,
} from '../../../model/uplink';
import { type Forward, type Plan, boxOf, portTitle } from '../../../plan';
import { outsideAddress, probe } from '../../../rehearse';
import { forwardTitle, internetCheck, isListenedTo, onForward, onUplink, removalOf } from './shared';

/** What stands in the plan and nobody gets any use of. */

/** Is something else said of it already: that nothing gets in, that it leads nowhere, that nothing listens there? */
function isTold(plan: Plan, forward: Forward): boolean {
  const uplink = plan.uplink.get(forward.uplink)!;
  if (!uplink.enabled || uplink.segment !== null || uplinkDown(plan, uplink.id) !== null) return true;
  if (letsForwardsIn(uplink).works === false || forwardedTo(plan, forward) === null) return true;
  return isListenedTo(plan, forward) === false;
}

const unused = internetCheck('forward-unused', function* (plan, today) {
  for (const forward of plan.forward.values()) {
    if (!forward.enabled || isTold(plan, forward)) continue;
    const uplink = plan.uplink.get(forward.uplink)!;
    const target = targetOf(plan, forward);
    const listed = listenersOf(plan, target.id);
    // A forward of many ports is of use when one of them is.
    const ports = listed.length > 0 ? listed.map(({ port }) => port - forward.inside + forward.from) : [];
    const port = ports.find((one) => one >= forward.from && one <= forward.to) ?? forward.from;
    const answer = probe(
      plan,
      {
        from: { internet: true },
        to: { address: outsideAddress(plan, uplink) },
        wanted: { protocol: forward.protocol === 'udp' ? 'udp' : 'tcp', port },
      },
      today,
    );
    if (answer.works !== false) continue;
    yield {
      severity: 'fix',
      on: onForward(forward),
      also: [onUplink(uplink), { table: 'device', id: target.id }],
      what: `${forwardTitle(plan, forward)} is of use to nobody`,
      because: `Somebody outside who asks for it: ${answer.summary}.`,
      remedies: [removalOf(forward)],
    };
  }
});

/** What may stand between a gateway and its provider. */
const BETWEEN: ReadonlySet<string> = new Set(['provider-box', 'patch-panel', 'outlet', 'appliance', 'other']);

const occupied = internetCheck('uplink-port-occupied', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    if (uplink.port === null || uplink.segment !== null) continue;
    const port = plan.port.get(uplink.port)!;
    for (const { to, cables } of linksOf(plan).get(port.id) ?? []) {
      const far = plan.port.get(to)!;
      const device = plan.device.get(far.device)!;
      // A switch may carry a provider’s line by itself; a port of it in a segment of the site does not.
      const inside = boxOf(plan, device.id) ? far.role === 'access' || far.role === 'trunk' : true;
      if (BETWEEN.has(device.kind) || !inside) continue;
      yield {
        severity: 'fix',
        on: onUplink(uplink),
        also: [{ table: 'port', id: far.id }, ...cables.map((id) => ({ table: 'cable' as const, id }))],
        what: `${portTitle(plan, port)} is to face the provider and leads to ${device.name}`,
        because: `${uplink.name} is recorded there, and the cable goes to ${portTitle(plan, far)} inside: the provider’s line has no socket, or ${device.name} stands outside.`,
        remedies: [
          {
            label: `Leave the port of ${uplink.name} open`,
            operation: 'setUplinkPort',
            input: { uplink: uplink.id, port: null },
          },
        ],
      };
      break;
    }
  }
});

/** IPv6 keeps its addresses: what no provider delegates has no way back from the Internet. */
const sixForeign = internetCheck('six-not-delegated', function* (plan) {
  const lines = uplinksOf(plan).filter(({ enabled, segment }) => enabled && segment === null);
  if (lines.length === 0) return;
  const delegated = lines.flatMap((uplink) =>
    uplink.delegated ? [{ uplink, prefix: uplink.delegated }] : [],
  );
  for (const subnet of plan.subnet.values()) {
    const vlan = plan.vlan.get(subnet.vlan)!;
    if (prefixFamily(subnet.prefix) === 4 || !vlan.internet) continue;
    if (kindOfAddress(subnet.prefix.address) !== 'public') continue;
    if (delegated.some(({ prefix }) => covers(prefix, subnet.prefix))) continue;
    const known = delegated.map(({ uplink, prefix }) => `${uplink.name} ${formatPrefix(prefix)}`).join(', ');
    const places = delegated.flatMap(({ uplink, prefix }) => {
      const place = freePlace64(plan, prefix, vlan.vid);
      return place ? [{ uplink, place }] : [];
    });
    yield {
      severity: 'fix',
      on: { table: 'subnet', id: subnet.id },
      also: delegated.map(({ uplink }) => onUplink(uplink)),
      what: `The IPv6 of ${vlan.name} is nobody’s to use`,
      because: `${formatPrefix(subnet.prefix)} is in no prefix that a provider delegates here${known ? ` (${known})` : ''}, and IPv6 is not translated: answers go elsewhere.`,
      remedies: places.slice(0, 2).map(({ uplink, place }) => ({
        label: `Move it to ${formatPrefix(place)} of ${uplink.name}`,
        operation: 'setPrefix',
        input: { subnet: subnet.id, prefix: formatPrefix(place), relocate: true },
      })),
    };
  }
});

export const usedChecks = [unused, occupied, sixForeign];
