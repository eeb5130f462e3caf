import { homesOf } from '../../../model/wiring';
import { formatAddress } from '../../../address';
import { hasOwnFreeAddress } from '../../../edit';
import {
  type Plan,
  type Address,
  type Box,
  type Device,
  type Remedy,
  type Vlan,
  plainVlansOf,
  addressesOn,
  interfacesOf,
} from '../../../plan';
import { type VlanMember, islandsOf } from '../../../model/switching';
import type { BoxCheck, Report } from '../../finding';
import { boxCheck } from './shared';
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
  const vlan = homesOf(plan, device.id).find((item) => ['guest', 'iot', 'cameras'].includes(item.purpose));
  if (!vlan) return;
  yield {
    severity: 'fix',
    on: { table: 'device', id: device.id },
    also: [{ table: 'vlan', id: vlan.id }],
    what: `${device.name} is managed from ${vlan.name}`,
    because: `Its address is in VLAN ${vlan.vid} (${vlan.purpose}): whoever is there can try its login.`,
  };
});

/** An address of management, and its VLAN carried to the box where that does not hear it. */
function addressing(plan: Plan, device: Device): Remedy[] {
  const label = 'Give it the next free address of management';
  const input = { device: device.id };
  const vlan = plainVlansOf(plan).find(({ purpose }) => purpose === 'management');
  if (!vlan || hasCompany(plan, device, vlan) !== null) return [{ label, operation: 'addressBox', input }];
  const both = `${label}, and carry ${vlan.vid} ${plan.vlan.get(vlan.id)!.code} to it`;
  const calls = [
    { operation: 'addressBox', input },
    { operation: 'carryNeeded', input: { vlan: vlan.id } },
  ];
  return [
    { label: both, operation: 'several', input: { label: `${device.name}: ${both}`.slice(0, 200), calls } },
  ];
}

const unaddressed = managedCheck('management-unaddressed', function* (plan, device, box, addresses) {
  if (addresses.length > 0) return;
  yield {
    severity: box.controller !== null ? 'note' : 'fix',
    on: { table: 'box', id: box.id },
    also: [{ table: 'device', id: device.id }],
    what: `${device.name} has no address of its own`,
    because: 'Nothing is recorded, so it takes whatever it is leased: nobody knows where its pages are.',
    remedies: hasOwnFreeAddress(plan, device) ? addressing(plan, device) : [],
  };
});

/** Does anybody besides the box itself hear the VLAN it is managed in? Null when the box itself does not. */
function hasCompany(plan: Plan, device: Device, vlan: Pick<Vlan, 'id'>): boolean | null {
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
