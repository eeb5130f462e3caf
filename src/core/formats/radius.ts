import { type IpAddress, formatAddress } from '../address';
import { type Plan, addressesOn, interfacesOf } from '../plan';
import { boxesAsking, knownBy, macOf } from '../model/guards';
import { accessPoints, networksAt } from '../model/wireless';
import { linksAt, portsOf } from '../model/wiring';
import { homeVlanOf } from '../rehearse';

/**
 * What a RADIUS server has to know of the site, as FreeRADIUS reads it: the boxes that ask (clients.conf) and the devices they ask
 * about (the users file). Secrets and passwords are not in the plan; where one belongs a placeholder stands.
 */

const placeholder = (what: string, name: string): string => `SET-THE-${what}-OF-${name}`;

/** The boxes that ask a server: those whose ports ask, and access points whose networks do. */
function askingBoxes(plan: Plan): string[] {
  const found = new Set([...boxesAsking(plan).values()].flatMap((boxes) => [...boxes]));
  for (const { id } of accessPoints(plan))
    if (networksAt(plan, id).some(({ security }) => security.endsWith('enterprise'))) found.add(id);
  return [...found].sort((a, b) => plan.device.get(a)!.name.localeCompare(plan.device.get(b)!.name));
}

const addressesIn = (plan: Plan, device: string): IpAddress[] =>
  interfacesOf(plan, device).flatMap((card) => addressesOn(plan, card.id).map(({ address }) => address));

/** The boxes that ask, one client for each of their addresses: whichever they ask from, they are known. */
export function radiusClients(plan: Plan): string {
  const lines = [
    '# Boxes that ask whom to let in. Put a secret of its own in place of each SET-THE-SECRET-OF-…',
    '',
  ];
  for (const box of askingBoxes(plan)) {
    const { name } = plan.device.get(box)!;
    const addresses = addressesIn(plan, box);
    if (addresses.length === 0) lines.push(`# ${name} has no address, so nobody answers it.`, '');
    addresses.forEach((address, i) =>
      lines.push(
        `client ${i === 0 ? name : `${name}-${i + 1}`} {`,
        `    ipaddr = ${formatAddress(address)}`,
        `    secret = "${placeholder('SECRET', name)}"`,
        `    shortname = ${name}`,
        '    nas_type = other',
        '}',
        '',
      ),
    );
  }
  return lines.join('\n');
}

/** Is a segment tagged at the port of a device? As that of a telephone is. */
const taggedAt = (plan: Plan, device: string, vlan: string): boolean =>
  portsOf(plan, device)
    .flatMap((port) => linksAt(plan, port))
    .some(({ to }) => plan.port.get(to)!.voice === vlan);

/** The segment a device is put into: RFC 3580 untagged, RFC 4675 where it is to be tagged. */
function segmentLines(plan: Plan, device: string): string[] {
  const home = homeVlanOf(plan, device);
  if (home === null) return [];
  const { vid } = plan.vlan.get(home)!;
  return taggedAt(plan, device, home)
    ? [`\tEgress-VLANID = 0x31${vid.toString(16).padStart(6, '0')}`]
    : ['\tTunnel-Type = VLAN,', '\tTunnel-Medium-Type = IEEE-802,', `\tTunnel-Private-Group-Id = "${vid}"`];
}

/** How a MAC address is written where it stands for a name: as most boxes do it. */
export const macAsName = (mac: string): string => mac.toLowerCase().replace(/[^0-9a-f]/g, '');

/** The devices that answer 802.1X, by name, and those known by their MAC addresses. */
export function radiusUsers(plan: Plan): string {
  const lines = [
    '# Devices that may be let in. Put a password in place of each SET-THE-PASSWORD-OF-…',
    '# A MAC address stands for name and password alike: whoever knows it is let in.',
    '',
  ];
  for (const device of [...plan.device.values()].sort((a, b) => a.name.localeCompare(b.name))) {
    const by = knownBy(plan, device.id);
    const macs = interfacesOf(plan, device.id)
      .map((card) => macOf(plan, card))
      .filter((mac) => mac !== null)
      .map(macAsName);
    const names = by === 'dot1x' ? [device.name] : by === 'mac' ? [...new Set(macs)] : [];
    if (by === 'mac' && names.length === 0)
      lines.push(`# ${device.name} is known by its MAC address, and none is recorded.`, '');
    for (const name of names) {
      const password = by === 'dot1x' ? placeholder('PASSWORD', name) : name;
      if (by === 'mac') lines.push(`# ${device.name}`);
      lines.push(`"${name}" Cleartext-Password := "${password}"`, ...segmentLines(plan, device.id), '');
    }
  }
  return lines.join('\n');
}
