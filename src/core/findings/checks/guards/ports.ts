import { type Plan, type Port, boxOf, derive, deriveBy, portTitle } from '../../../plan';
import { guardsOf, noVlanGuards, portGuardsOf } from '../../../model/guards';
import { expectedMacs, isEdge } from '../../../rehearse';
import { landsIn } from '../../../model/switching';
import { onDevice, onPort } from '../refs';
import { guardCheck, guarding, holding, portCheck } from './shared';

/** Limits of ports, boxes that cannot guard, and boxes that do not though others do. */

/** The ports of which something is recorded. */
const heldIds = derive(
  (plan): ReadonlySet<string> => new Set([...plan.portGuard.values()].map(({ port }) => port)),
);
const recordedAt = (plan: Plan, { id }: Port) => plan.portGuard.by('port', id)[0]!;

const limitLow = portCheck('mac-limit-low', heldIds, (plan, port) => {
  const { macLimit, macAction } = recordedAt(plan, port);
  const expected = macLimit === null ? 0 : expectedMacs(plan, port);
  if (macLimit === null || expected <= macLimit) return null;
  const title = portTitle(plan, port);
  return {
    severity: macAction === 'shut' ? 'stop' : 'fix',
    on: onPort(port.id),
    what: `${title} lets ${macLimit} MAC ${macLimit === 1 ? 'address' : 'addresses'} in, and ${expected} are planned there`,
    because:
      macAction === 'shut'
        ? 'With the last of them the port is switched off.'
        : 'The last of them is not heard.',
    remedies: [
      isEdge(plan, port)
        ? { label: `Let ${expected} in`, operation: 'limitMacs', input: { ports: [port.id] } }
        : holding('No limit between boxes', port.id, { macLimit: null }),
    ],
  };
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

/** The segments in which some box writes option 82 into requests. */
const writtenIn = derive(
  (plan): ReadonlySet<string> =>
    new Set([...plan.vlanGuard.values()].flatMap(({ vlan, option82 }) => (option82 ? [vlan] : []))),
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
      // A box that watches drops what another has written option 82 into.
      remedies: missing.some((id) => writtenIn(plan).has(id))
        ? []
        : [
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
const rateLow = portCheck('dhcp-rate-low', heldIds, (plan, port) => {
  const { dhcpRate } = portGuardsOf(plan, port.id);
  if (dhcpRate === null) return null;
  // A client sends a discover and a request when it starts (RFC 2131 section 3.1).
  const needed = 2 * expectedMacs(plan, port);
  if (dhcpRate >= needed) return null;
  return {
    severity: 'fix',
    on: onPort(port.id),
    what: `${portTitle(plan, port)} passes ${dhcpRate} DHCP packets per second`,
    because: `After a power cut ${needed / 2} devices behind it ask at once, twice each; with ${needed} per second all are heard.`,
    remedies: [holding(`Let ${needed} per second pass`, port.id, { dhcpRate: needed })],
  };
});

export const portChecks = [limitLow, unable, unwatched, rateLow];
