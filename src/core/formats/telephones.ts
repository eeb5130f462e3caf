import { contains, familyOf, formatAddress, maskOf } from '../address';
import {
  type Plan,
  type Pool,
  type Subnet,
  type Telephony,
  addressesOn,
  dnsOf,
  gatewaysOf,
  interfacesOf,
  subnetOf,
} from '../plan';
import { type Target, targetOf, telephoniesOf } from '../model/guards';
import { inQuotes } from './in-quotes';

/**
 * What telephones are told with their lease, as dnsmasq reads it: option 66 (RFC 2132) or 150 (RFC 5859) for the boot server, 120
 * (RFC 3361) for where they register. Each voice segment has a tag of its own, so nobody else is told.
 */

/** The host alone: a device of the site by its address, any other name as it was typed. Null where it has no IPv4 address. */
function hostOf(plan: Plan, text: string, { to }: Target): string | null {
  if ('address' in to) return familyOf(to.address) === 4 ? formatAddress(to.address) : null;
  const own =
    'device' in to ? interfacesOf(plan, to.device).flatMap((card) => addressesOn(plan, card.id)) : [];
  const four = own.find(({ address }) => familyOf(address) === 4);
  if (four) return formatAddress(four.address);
  return own.length > 0 ? null : text.replace(/^[a-z]+:(?:\/\/)?/i, '').replace(/[:/].*$/, '');
}

/** What telephones are told besides what everybody is, as dnsmasq names it: option, comma, value. */
export function telephoneTold(plan: Plan, { boot, bootOption, registrar }: Telephony): string[] {
  const lines: string[] = [];
  const booted = boot === '' ? null : targetOf(plan, boot, 'tftp');
  if (booted && bootOption === '66') lines.push(`66,${inQuotes(boot)}`);
  const bootHost = booted?.literal && bootOption === '150' ? hostOf(plan, boot, booted) : null;
  if (bootHost !== null) lines.push(`150,${bootHost}`);
  const registers = registrar === '' ? null : targetOf(plan, registrar, 'sip');
  const registrarHost = registers ? hostOf(plan, registrar, registers) : null;
  if (registrarHost !== null) lines.push(`option:sip-server,${registrarHost}`);
  return lines;
}

/** One that lies outside, as a file may bring it, leases nothing. */
const poolsIn = (plan: Plan, { id, prefix }: Subnet): Pool[] =>
  [...plan.pool.group(id).values()].filter(
    ({ start, end }) => contains(prefix, start) && contains(prefix, end),
  );

function segmentLines(plan: Plan, one: Telephony, subnet: Subnet): string[] {
  const { name, vid } = plan.vlan.get(one.vlan)!;
  const tag = `voice-${vid}`;
  const [gateway] = gatewaysOf(plan, subnet.id);
  const dns = dnsOf(plan, subnet);
  const told = [
    `3${gateway ? `,${formatAddress(gateway.address)}` : ''}`,
    ...(dns.length > 0 ? [`6,${dns.map(formatAddress).join(',')}`] : []),
    ...telephoneTold(plan, one),
  ];
  return [
    `# ${name}, VLAN ${vid}`,
    ...poolsIn(plan, subnet).map(
      ({ start, end, lease }) =>
        `dhcp-range=set:${tag},${formatAddress(start)},${formatAddress(end)},${maskOf(subnet.prefix.length)},${lease}`,
    ),
    ...told.map((option) => `dhcp-option=tag:${tag},${option}`),
    '',
  ];
}

/** The ranges of the voice segments with what telephones are told in them. */
export function telephoneOptions(plan: Plan): string {
  const lines = ['# What telephones are told with their lease', ''];
  for (const one of telephoniesOf(plan)) {
    const subnet = subnetOf(plan, one.vlan, 4);
    const { name } = plan.vlan.get(one.vlan)!;
    if (subnet && poolsIn(plan, subnet).length > 0) lines.push(...segmentLines(plan, one, subnet));
    else lines.push(`# ${name}: nothing is leased there, so nobody is told anything`, '');
  }
  return lines.join('\n');
}
