import { formatAddress } from '../../../address';
import { hasOwnFreeAddress } from '../../../edit';
import { type Plan, type Address, type Device, type Vlan, addressesOn, interfacesOf } from '../../../plan';
import { type VlanUser, islandsOf } from '../../../model/switching';
import { bridging, gearCheck, segmentsOf } from './shared';
import { cutVlans } from './ways';

/** Whether whoever configures a box gets to it. */

const ROUTING = ['gateway', 'layer3-switch', 'server'];

interface Managed {
  readonly device: Device;
  readonly box: string;
  readonly controlled: boolean;
  readonly addresses: readonly Address[];
}

/** The boxes with a login of their own that are reached as hosts; those that route are reached at their gateways. */
function* managed(plan: Plan): Generator<Managed> {
  for (const { box, device } of bridging(plan)) {
    if (!box.vlanAware || ROUTING.includes(device.kind)) continue;
    const addresses = interfacesOf(plan, device.id).flatMap((item) => addressesOn(plan, item.id));
    yield { device, box: box.id, controlled: box.controller !== null, addresses };
  }
}

const misplaced = gearCheck('management-misplaced', function* (plan) {
  for (const { device } of managed(plan)) {
    const vlan = segmentsOf(plan, device.id).find((item) =>
      ['guest', 'iot', 'cameras'].includes(item.purpose),
    );
    if (!vlan) continue;
    yield {
      severity: 'fix',
      on: { table: 'device', id: device.id },
      also: [{ table: 'vlan', id: vlan.id }],
      what: `${device.name} is managed from ${vlan.name}`,
      because: `Its address is in VLAN ${vlan.vid} (${vlan.purpose}): whoever is there can try its login.`,
    };
  }
});

const unaddressed = gearCheck('management-unaddressed', function* (plan) {
  for (const { device, box, controlled, addresses } of managed(plan)) {
    if (addresses.length > 0) continue;
    yield {
      severity: controlled ? 'note' : 'fix',
      on: { table: 'box', id: box },
      also: [{ table: 'device', id: device.id }],
      what: `${device.name} has no address of its own`,
      because: 'Nothing is recorded, so it takes whatever it is leased: nobody knows where its pages are.',
      remedies: hasOwnFreeAddress(plan, device)
        ? [
            {
              label: 'Give it the next free address of management',
              operation: 'addressBox',
              input: { device: device.id },
            },
          ]
        : [],
    };
  }
});

/** Does anybody besides the box itself hear the VLAN it is managed in? Null when the box itself does not. */
function hasCompany(plan: Plan, device: Device, vlan: Vlan): boolean | null {
  const isOwn = ({ port }: VlanUser) => port.device === device.id && port.number === 0;
  const island = islandsOf(plan, vlan.id).find(({ users }) => users.some(isOwn));
  return island ? !island.users.every(isOwn) : null;
}

const unreachable = gearCheck('management-unreachable', function* (plan) {
  const cut = cutVlans(plan);
  for (const { device, addresses } of managed(plan))
    for (const address of addresses) {
      const vlan = plan.vlan.get(plan.subnet.get(address.subnet)!.vlan)!;
      // A VLAN in pieces is a finding of its own.
      if (cut.has(vlan.id) || hasCompany(plan, device, vlan) !== false) continue;
      yield {
        severity: 'fix',
        on: { table: 'address', id: address.id },
        also: [{ table: 'device', id: device.id }],
        what: `Nobody gets to ${device.name} at ${formatAddress(address.address)}`,
        because: `No port and no other box takes part in VLAN ${vlan.vid} (${vlan.name}) where it hears it.`,
      };
    }
});

export const managementChecks = [misplaced, unaddressed, unreachable];
