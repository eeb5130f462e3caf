import { type Interface, type Plan, addressesOn, badInput, devicesNamed, interfacesOf } from '../../plan';

/** Devices by their host names, where an interface of theirs is meant. */

/** The interface that is meant by a host name in a segment: the one that stands there, else the first. Throws a Refusal. */
export function interfaceNamed(plan: Plan, text: string, vlan: string): Interface {
  const name = text.trim();
  const [device] = devicesNamed(plan, name);
  const items = device ? interfacesOf(plan, device.id) : [];
  const there = items.find(
    (item) =>
      item.vlan === vlan ||
      addressesOn(plan, item.id).some(({ subnet }) => plan.subnet.get(subnet)!.vlan === vlan),
  );
  const found = there ?? items[0];
  if (!found)
    throw badInput(
      device
        ? `${device.name} has no address here; give it one under Addresses first.`
        : `“${name}” is no host of this site; write its name as it stands under Addresses.`,
      'host',
    );
  return found;
}

/** Several, with commas; none for “none” or nothing. */
export const interfacesNamed = (plan: Plan, text: string, vlan: string): string[] => {
  const names = text.split(/[,\s]+/).filter(Boolean);
  if (names.length === 0 || /^none$/i.test(text.trim())) return [];
  return [...new Set(names.map((name) => interfaceNamed(plan, name, vlan).id))];
};

/** The host names of interfaces, as they are read back. */
export const namesOfInterfaces = (plan: Plan, ids: readonly string[]): string =>
  ids.map((id) => plan.device.get(plan.interface.get(id)!.device)!.name).join(', ');
