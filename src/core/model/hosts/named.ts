import { formatAddress } from '../../address';
import {
  type Device,
  type Interface,
  type Plan,
  addressesOn,
  badInput,
  devicesNamed,
  domainOf,
  interfacesOf,
} from '../../plan';
import { segmentsOf } from './segments-of';

/** Devices as people type them: by name, or with the domain where names stand in several. */

/** The domains in which a device has an address; small letters (RFC 4343). */
export const domainsOf = (plan: Plan, { id }: Device): ReadonlySet<string> =>
  new Set(
    interfacesOf(plan, id).flatMap((card) =>
      addressesOn(plan, card.id).map(({ subnet }) => domainOf(plan, plan.subnet.get(subnet)!).toLowerCase()),
    ),
  );

/** The devices a text may mean: `cam-1`, or `cam-1.lab.example.net`. */
export function devicesMeant(plan: Plan, text: string): readonly Device[] {
  const name = text.trim();
  const called = devicesNamed(plan, name);
  const dot = name.indexOf('.');
  if (called.length > 0 || dot < 0) return called;
  const domain = name.slice(dot + 1).toLowerCase();
  return devicesNamed(plan, name.slice(0, dot)).filter((device) => domainsOf(plan, device).has(domain));
}

/**
 * The device a text means; undefined for none. Of several, the one that suits. Throws a Refusal where it may be one of several.
 */
export function deviceMeant(
  plan: Plan,
  text: string,
  field: string,
  suits: (device: Device) => boolean = () => true,
): Device | undefined {
  const all = devicesMeant(plan, text);
  const suiting = all.filter(suits);
  const [device, ...others] = suiting.length > 0 ? suiting : all;
  if (others.length === 0) return device;
  const several = [device!, ...others];
  const names = several.map((each) => deviceTyped(plan, each));
  if (names.every((name) => devicesMeant(plan, name).length === 1))
    throw badInput(`“${text.trim()}” may be ${names.join(' or ')}; write it with its domain.`, field);
  const places = several.flatMap(({ id }) => {
    const [first] = interfacesOf(plan, id).flatMap((card) => addressesOn(plan, card.id));
    return first ? [formatAddress(first.address)] : [];
  });
  const at = places.length > 0 ? `, at ${places.join(' and ')}` : '';
  throw badInput(
    `${several.length} devices are called “${text.trim()}”${at}; rename one of them first.`,
    field,
  );
}

/** A device's name as it is typed: with a domain where that tells it from another of the name. */
export function deviceTyped(plan: Plan, device: Device): string {
  if (devicesNamed(plan, device.name).length < 2) return device.name;
  const full = [...domainsOf(plan, device)].filter(Boolean).map((domain) => `${device.name}.${domain}`);
  return full.find((name) => devicesMeant(plan, name).length === 1) ?? device.name;
}

/** The interface that is meant by a host name in a segment: the one that stands there, else the first. Throws a Refusal. */
export function interfaceNamed(plan: Plan, text: string, vlan: string): Interface {
  const stands = (item: Interface) => segmentsOf(plan, item).includes(vlan);
  const device = deviceMeant(plan, text, 'host', ({ id }) => interfacesOf(plan, id).some(stands));
  const items = device ? interfacesOf(plan, device.id) : [];
  const found = items.find(stands) ?? items[0];
  if (!found)
    throw badInput(
      device
        ? `${device.name} has no address here; give it one under Addresses first.`
        : `“${text.trim()}” is no host of this site; write its name as it stands under Addresses.`,
      'host',
    );
  return found;
}

/**
 * Several, with commas or spaces; none for “none” or nothing. Those that are known stay the cards they are: what was written
 * from a list is read back as the same list.
 */
export function interfacesNamed(
  plan: Plan,
  text: string,
  vlan: string,
  known: readonly string[] = [],
): string[] {
  if (/^\s*(none)?\s*$/i.test(text)) return [];
  const names = text
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean)
    .flatMap((name) => (devicesMeant(plan, name).length > 0 ? [name] : name.split(/\s+/)));
  const left = [...known];
  const found = names.map((name) => {
    const at = left.findIndex((id) => namesOfInterfaces(plan, [id]).toLowerCase() === name.toLowerCase());
    return at < 0 ? interfaceNamed(plan, name, vlan).id : left.splice(at, 1)[0]!;
  });
  return [...new Set(found)];
}

/** The host names of interfaces, as they are read back. */
export const namesOfInterfaces = (plan: Plan, ids: readonly string[]): string =>
  ids.map((id) => deviceTyped(plan, plan.device.get(plan.interface.get(id)!.device)!)).join(', ');
