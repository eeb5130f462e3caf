import { formatAddress } from '../../../address';
import { hasOwnFreeAddress } from '../../../edit';
import {
  type Plan,
  type Address,
  type Box,
  type Device,
  type Vlan,
  addressesOn,
  interfacesOf,
} from '../../../plan';
import { type VlanMember, islandsOf } from '../../../model/switching';
import type { BoxCheck, Report } from '../../finding';
import { boxCheck, segmentsOf } from './shared';
import { isCut } from './ways';

/** Whether whoever configures a box gets to it. */

const ROUTING = ['gateway', 'layer3-switch', 'server'];

/** The boxes with a login of their own that are reached as hosts; those that route are reached at their gateways. */
const managedCheck = (
  id: string,
  find: (plan: Plan, device: Device, box: Box, addresses: readonly Address[]) => Iterable<Report>,
): BoxCheck =>
  boxCheck(id, (plan, { box, device }) => {
    if (!box.vlanAware || ROUTING.includes(device.kind)) return [];
    const addresses = interfacesOf(plan, device.id).flatMap((item) => addressesOn(plan, item.id));
    return find(plan, device, box, addresses);
  });

const misplaced = managedCheck('management-misplaced', function* (plan, device) {
  const vlan = segmentsOf(plan, device.id).find((item) => ['guest', 'iot', 'cameras'].includes(item.purpose));
  if (!vlan) return;
  yield {
    severity: 'fix',
    on: { table: 'device', id: device.id },
    also: [{ table: 'vlan', id: vlan.id }],
    what: `${device.name} is managed from ${vlan.name}`,
    because: `Its address is in VLAN ${vlan.vid} (${vlan.purpose}): whoever is there can try its login.`,
  };
});

const unaddressed = managedCheck('management-unaddressed', function* (plan, device, box, addresses) {
  if (addresses.length > 0) return;
  yield {
    severity: box.controller !== null ? 'note' : 'fix',
    on: { table: 'box', id: box.id },
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
});

/** Does anybody besides the box itself hear the VLAN it is managed in? Null when the box itself does not. */
function hasCompany(plan: Plan, device: Device, vlan: Vlan): boolean | null {
  const isOwn = ({ port }: VlanMember) => port.device === device.id && port.number === 0;
  const island = islandsOf(plan, vlan.id).find(({ users }) => users.some(isOwn));
  return island ? !island.users.every(isOwn) : null;
}

const unreachable = managedCheck('management-unreachable', function* (plan, device, _box, addresses) {
  for (const address of addresses) {
    const vlan = plan.vlan.get(plan.subnet.get(address.subnet)!.vlan)!;
    // A VLAN in pieces is a finding of its own.
    if (isCut(plan, vlan.id) || hasCompany(plan, device, vlan) !== false) continue;
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
