import { boxOf, derive, deriveBy, portTitle } from '../../../plan';
import { guardsOf, noVlanGuards, portGuardsOf } from '../../../model/guards';
import { expectedMacs, isEdge } from '../../../rehearse';
import { landsIn } from '../../../model/switching';
import { onDevice } from '../refs';
import { guardCheck, guarding, holding, onPort } from './shared';

/** Limits of ports, boxes that cannot guard, and boxes that do not though others do. */

const limitLow = guardCheck('mac-limit-low', function* (plan) {
  for (const { port: id, macLimit, macAction } of plan.portGuard.values()) {
    const port = plan.port.get(id)!;
    const expected = macLimit === null ? 0 : expectedMacs(plan, port);
    if (macLimit === null || expected <= macLimit) continue;
    const title = portTitle(plan, port);
    yield {
      severity: macAction === 'shut' ? 'stop' : 'fix',
      on: onPort(id),
      what: `${title} lets ${macLimit} MAC ${macLimit === 1 ? 'address' : 'addresses'} in, and ${expected} are planned there`,
      because:
        macAction === 'shut'
          ? 'With the last of them the port is switched off.'
          : 'The last of them is not heard.',
      remedies: [
        isEdge(plan, port)
          ? { label: `Let ${expected} in`, operation: 'limitMacs', input: { ports: [id] } }
          : holding('No limit between boxes', id, { macLimit: null }),
      ],
    };
  }
});

const unable = guardCheck('guards-unable', function* (plan) {
  for (const device of guarding(plan)) {
    if (boxOf(plan, device)?.snooping) continue;
    const { name } = plan.device.get(device)!;
    yield {
      severity: 'stop',
      on: onDevice(device),
      what: `${name} is to guard and cannot`,
      because: 'Its model watches no leases, so nothing that is planned here happens.',
      remedies: [
        {
          label: `Guard nothing at ${name}`,
          operation: 'setVlanGuards',
          input: {
            devices: [device],
            vlans: [...plan.vlanGuard.group(device).values()].map(({ vlan }) => vlan),
            set: noVlanGuards,
          },
        },
      ],
    };
  }
});

/** The segments that the end ports of a box, and those in reach of strangers, are in. */
const edgeSegments = deriveBy((plan, device: string): readonly string[] => {
  const ports = [...plan.port.group(device).values()].filter(
    (port) => port.number > 0 && (isEdge(plan, port) || port.exposed),
  );
  return [...new Set(ports.flatMap((port) => landsIn(plan, port).vlan?.id ?? []))];
});
const leasedSegments = derive(
  (plan): ReadonlySet<string> =>
    new Set([...plan.pool.values()].map(({ subnet }) => plan.subnet.get(subnet)!.vlan)),
);

const unwatched = guardCheck('leases-unwatched', function* (plan) {
  // Before anything is guarded nobody has begun to plan it.
  if (plan.vlanGuard.size === 0) return;
  for (const { device, snooping } of plan.box.values()) {
    if (!snooping) continue;
    const watched = new Set(
      [...guardsOf(plan, device).values()].filter((guard) => guard.snooping).map(({ vlan }) => vlan),
    );
    const missing = edgeSegments(plan, device).filter(
      (id) => leasedSegments(plan).has(id) && !watched.has(id),
    );
    if (missing.length === 0) continue;
    const { name } = plan.device.get(device)!;
    const segments = missing.map((id) => plan.vlan.get(id)!.name);
    yield {
      severity: 'note',
      on: onDevice(device),
      also: missing.map((id) => ({ table: 'vlan' as const, id })),
      what: `${name} believes any DHCP server`,
      because: `It could watch leases and does not in ${segments.join(', ')}: a router plugged in there hands out its own addresses.`,
      remedies: [
        {
          label: `Watch leases at ${name}`,
          operation: 'switchOnGuards',
          input: { devices: [device], vlans: missing, set: { snooping: true } },
        },
      ],
    };
  }
});

/** A limit of packets below what a port with several devices needs when they all start. */
const rateLow = guardCheck('dhcp-rate-low', function* (plan) {
  for (const { port: id } of plan.portGuard.values()) {
    const port = plan.port.get(id)!;
    const { dhcpRate } = portGuardsOf(plan, id);
    if (dhcpRate === null) continue;
    // A client sends a discover and a request when it starts (RFC 2131 section 3.1).
    const needed = 2 * expectedMacs(plan, port);
    if (dhcpRate >= needed) continue;
    yield {
      severity: 'fix',
      on: onPort(id),
      what: `${portTitle(plan, port)} passes ${dhcpRate} DHCP packets per second`,
      because: `After a power cut ${needed / 2} devices behind it ask at once, twice each; with ${needed} per second all are heard.`,
      remedies: [holding(`Let ${needed} per second pass`, id, { dhcpRate: needed })],
    };
  }
});

export const portChecks = [limitLow, unable, unwatched, rateLow];
