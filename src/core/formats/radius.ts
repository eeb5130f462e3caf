import { type IpAddress, formatAddress } from '../address';
import { type Plan, type Port, addressesOn, interfacesOf } from '../plan';
import { accessAt, boxesAsking, knownBy, macOf } from '../model/guards';
import { accessPoints, networksAt } from '../model/wireless';
import { linksAt, portsOf } from '../model/wiring';
import { homeVlanOf } from '../rehearse';
import { filterRules } from './filter-rules';
import { inQuotes } from './in-quotes';
import { hostLabels } from './programs';

/**
 * What a RADIUS server has to know of the site, as FreeRADIUS reads it: the boxes that ask (clients.conf) and the devices they ask
 * about (the users file). Secrets and passwords are not in the plan; where one belongs a placeholder stands.
 */

/** Stands where a secret belongs, alike in the file of the server and in that of the box. */
export const placeholder = (what: string, name: string): string =>
  `SET-THE-${what}-OF-${name.replace(/[^\x21-\x7e]/g, '-')}`;

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
  const boxes = askingBoxes(plan).map((box) => plan.device.get(box)!);
  // Told apart, and of letters that the file takes.
  const labels = hostLabels(boxes, []);
  // A server refuses all of them where two have one address.
  const taken = new Map<IpAddress, string>();
  for (const { id: box, name: title } of boxes) {
    const name = labels.get(box)!;
    const addresses = addressesIn(plan, box);
    if (title !== name) lines.push(`# ${title}`);
    if (addresses.length === 0) lines.push(`# ${title} has no address, so nobody answers it.`, '');
    addresses.forEach((address, i) => {
      const other = taken.get(address);
      taken.set(address, other ?? title);
      lines.push(
        ...(other === undefined
          ? [
              `client ${i === 0 ? name : `${name}-${i + 1}`} {`,
              `    ipaddr = ${formatAddress(address)}`,
              `    secret = ${inQuotes(placeholder('SECRET', title))}`,
              `    shortname = ${name}`,
              '    nas_type = other',
              '}',
            ]
          : [`# ${title} has ${formatAddress(address)}, which is that of ${other} already.`]),
        '',
      );
    });
  }
  return lines.join('\n');
}

/** The ports of boxes that a device is plugged into. */
const portsFor = (plan: Plan, device: string): Port[] =>
  portsOf(plan, device)
    .flatMap((port) => linksAt(plan, port))
    .map(({ to }) => plan.port.get(to)!);

/**
 * What the server answers with: the segment (RFC 3580 untagged, RFC 4675 where it is to be tagged, as that of a telephone is), and
 * the list of what passes where the port takes one: any other port would keep the device out for it (RFC 4849 section 2).
 */
function replyLines(plan: Plan, device: string, today: string | null): string[] {
  const home = homeVlanOf(plan, device);
  if (home === null) return [];
  const { vid } = plan.vlan.get(home)!;
  const ports = portsFor(plan, device);
  const replies = ports.some(({ voice }) => voice === home)
    ? [`Egress-VLANID = 0x31${vid.toString(16).padStart(6, '0')}`]
    : ['Tunnel-Type = VLAN', 'Tunnel-Medium-Type = IEEE-802', `Tunnel-Private-Group-Id = "${vid}"`];
  if (ports.some(({ id }) => accessAt(plan, id)?.takesList))
    replies.push(...filterRules(plan, home, today).map((line) => `NAS-Filter-Rule += "${line}"`));
  return replies.map((reply, i) => `\t${reply}${i < replies.length - 1 ? ',' : ''}`);
}

/** How a MAC address is written where it stands for a name: as most boxes do it. */
export const macAsName = (mac: string): string => mac.toLowerCase().replace(/[^0-9a-f]/g, '');

/** The devices that answer 802.1X, by name, and those known by their MAC addresses, with what a server says of each on a day. */
export function radiusUsers(plan: Plan, today: string | null): string {
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
      lines.push(
        `${inQuotes(name)} Cleartext-Password := ${inQuotes(password)}`,
        ...replyLines(plan, device.id, today),
        '',
      );
    }
  }
  return lines.join('\n');
}
