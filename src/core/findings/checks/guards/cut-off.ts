import { formatAddress } from '../../../address';
import { type Plan, vlansOf } from '../../../plan';
import { type VlanGuards, guardsOf, hangsOnBindings, macOf } from '../../../model/guards';
import { type Sight, leasesSix, stoppedIn } from '../../../rehearse';
import { onDevice } from '../refs';
import { guardCheck, someOf } from './shared';

/** Whom guards keep from the network who belongs there. */

type Stopped = Sight & { readonly at: Sight['stops'][number] };

/** What guards stop, by the box that does. */
function byBox(plan: Plan, of: (sight: Stopped) => boolean): Map<string, Stopped[]> {
  const found = new Map<string, Stopped[]>();
  for (const { id } of vlansOf(plan))
    for (const sight of stoppedIn(plan, id))
      for (const at of sight.stops)
        if (of({ ...sight, at })) found.set(at.device, [...(found.get(at.device) ?? []), { ...sight, at }]);
  return found;
}

const nameOf = (plan: Plan, id: string): string => plan.device.get(id)!.name;
const isBinding = ({ at }: Stopped): boolean => hangsOnBindings(at.guard);
const isSix = ({ at }: Stopped): boolean => at.guard === 'sourceGuard6';

const unbound = guardCheck('fixed-unbound', function* (plan) {
  for (const [device, cut] of byBox(plan, (sight) => isBinding(sight) && sight.record !== null)) {
    const names = cut.map((sight) => nameOf(plan, sight.device));
    yield {
      severity: 'stop',
      on: onDevice(device),
      what: `${nameOf(plan, device)} cuts off ${someOf(names)}`,
      because: `${cut[0]!.at.why}${cut.length > 1 ? `; so with ${cut.length} addresses in all` : ''}. A fixed address asks for no lease, so it has to be entered.`,
      remedies: [{ label: 'Enter their bindings', operation: 'bindFixed', input: { devices: [device] } }],
    };
  }
});

/** What is said of a box that cuts people off in some segments. */
interface Said {
  readonly what: string;
  readonly because: string;
  /** What to switch on there, where that helps. */
  readonly watch?: { readonly label: string; readonly set: Partial<VlanGuards> };
}
/** A check of those who are in no list at a box; told once for each box, with the segments it is about. */
const notListed = (
  id: string,
  of: (plan: Plan, sight: Stopped) => boolean,
  say: (box: string, segments: string, who: string) => Said,
) =>
  guardCheck(id, function* (plan) {
    for (const [device, cut] of byBox(plan, (sight) => sight.record === null && of(plan, sight))) {
      const vlans = [...new Set(cut.map(({ vlan }) => vlan))];
      const segments = vlans.map((vlan) => plan.vlan.get(vlan)!.name).join(', ');
      const who = someOf(cut.map((sight) => nameOf(plan, sight.device)));
      const { watch, ...said } = say(nameOf(plan, device), segments, who);
      yield {
        severity: 'stop',
        on: onDevice(device),
        also: vlans.map((vlan) => ({ table: 'vlan' as const, id: vlan })),
        ...said,
        remedies: watch
          ? [
              {
                label: watch.label,
                operation: 'switchOnGuards',
                input: { devices: [device], vlans, set: watch.set },
              },
            ]
          : [],
      };
    }
  });

const leasesUnseen = notListed(
  'leases-unseen',
  (_plan, sight) => isBinding(sight) && !isSix(sight),
  (box, segments, who) => ({
    what: `${box} looks for leases it never saw`,
    because: `It checks ${segments} against bindings and watches no leases there: ${who} would be cut off.`,
    watch: { label: `Watch leases of ${segments}`, set: { snooping: true } },
  }),
);

const leasesUnseen6 = notListed(
  'leases-unseen-6',
  (plan, sight) => isSix(sight) && leasesSix(plan, sight.vlan),
  (box, segments, who) => ({
    what: `${box} looks for leases of DHCPv6 it never saw`,
    because: `It checks IPv6 senders of ${segments} and watches no leases of DHCPv6 there: ${who} would be cut off.`,
    watch: { label: `Watch DHCPv6 of ${segments}`, set: { dhcp6Guard: true } },
  }),
);

/** Who makes its address for itself (RFC 4862) is in no lease, and changes it besides (RFC 8981): there is nothing to enter. */
const selfMade = notListed(
  'own-addresses-cut',
  (plan, sight) => isSix(sight) && !leasesSix(plan, sight.vlan),
  (box, segments, who) => ({
    what: `${box} cuts off who makes an IPv6 address for itself`,
    because: `In ${segments} devices make addresses from what the router announces, and source guard knows leases only: ${who}. Lease addresses by DHCPv6 there, or leave IPv6 source guard off.`,
  }),
);

/** The boxes that write option 82 into a request on its way. */
const writers = (plan: Plan, { way, vlan }: Sight): string[] =>
  way.flatMap(({ device, vid }) => (guardsOf(plan, device).get(vid)?.option82 ? [`${device} ${vlan}`] : []));

const marked = guardCheck('option-82-dropped', function* (plan) {
  for (const [device, cut] of byBox(plan, ({ at }) => at.guard === 'option82')) {
    const wrote = [...new Set(cut.flatMap((sight) => writers(plan, sight)))].map(
      (key) => key.split(' ') as [string, string],
    );
    const boxes = [...new Set(wrote.map(([id]) => id))].filter((id) => id !== device);
    const devices = boxes.length > 0 ? boxes : [device];
    const vlans = [...new Set(wrote.map(([, vlan]) => vlan))];
    yield {
      severity: 'stop',
      on: onDevice(device),
      also: devices.map(onDevice),
      what: `${nameOf(plan, device)} drops requests with option 82`,
      because: `${cut[0]!.at.why}. ${someOf(cut.map((sight) => nameOf(plan, sight.device)))} would get no address.`,
      remedies: [
        {
          label: `No option 82 at ${devices.map((id) => nameOf(plan, id)).join(', ')}`,
          operation: 'setVlanGuards',
          input: { devices, vlans, set: { option82: false } },
        },
      ],
    };
  }
});

/** A binding needs both halves. */
const noMac = guardCheck('binding-without-mac', function* (plan) {
  const missing = new Map<string, string[]>();
  for (const { address: id } of plan.binding.values()) {
    const address = plan.address.get(id)!;
    const card = plan.interface.get(address.interface)!;
    if (macOf(plan, card) !== null) continue;
    const known = missing.get(card.device) ?? [];
    missing.set(card.device, [...known, formatAddress(address.address)]);
  }
  for (const [device, addresses] of missing)
    yield {
      severity: 'fix',
      on: onDevice(device),
      what: `The MAC address of ${nameOf(plan, device)} is not recorded`,
      because: `${someOf(addresses)} ${addresses.length === 1 ? 'is' : 'are'} to be entered at boxes, and an entry needs the MAC address too. Read it off the device.`,
    };
});

export const cutOffChecks = [unbound, leasesUnseen, leasesUnseen6, selfMade, marked, noMac];
