import { formatAddress, maskOf, prefixFamily } from '../../address';
import { type Plan, interfacesOf } from '../../plan';
import { telephoneTold } from '../telephones';
import { type Leasing, leasedBy, listensAt } from './leasing';

/** The leases of a box as dnsmasq reads them. It leases where the plan says and nowhere else, and answers no names unless it is planned to. */

/** The segments that are told to ask it for names. */
function asksNames(plan: Plan, device: string): string[] {
  const own = new Set(interfacesOf(plan, device).map(({ id }) => id));
  return [...plan.subnet.values()]
    .filter(({ dns }) => dns.some((server) => 'interface' in server && own.has(server.interface)))
    .map(({ vlan }) => vlan);
}

function segment(plan: Plan, leasing: Leasing): string[] {
  const { vlan, subnet, tag, ranges, gateway, dns, domain, reserved, missing, telephony } = leasing;
  const four = prefixFamily(subnet.prefix) === 4;
  const mask = four ? maskOf(subnet.prefix.length) : String(subnet.prefix.length);
  const option = (name: string, values: readonly string[]) =>
    `dhcp-option=tag:${tag},${[name, ...values].join(',')}`;
  const lease = ranges[0]!.lease;
  return [
    '',
    `# ${vlan.name}, VLAN ${vlan.vid}`,
    ...ranges.map(
      (range) =>
        `dhcp-range=set:${tag},${formatAddress(range.start)},${formatAddress(range.end)},${mask},${range.lease}`,
    ),
    ...(four
      ? [
          // Without a value nothing is told, instead of the address of the server itself.
          option('option:router', gateway === null ? [] : [formatAddress(gateway)]),
          option('option:dns-server', dns.map(formatAddress)),
        ]
      : [
          option(
            'option6:dns-server',
            dns.map((address) => `[${formatAddress(address)}]`),
          ),
        ]),
    ...(domain === '' ? [] : [option(four ? 'option:domain-name' : 'option6:domain-search', [domain])]),
    ...(telephony ? telephoneTold(plan, telephony).map((told) => `dhcp-option=tag:${tag},${told}`) : []),
    ...reserved.map(({ mac, address, name }) =>
      [
        `dhcp-host=${mac}`,
        four ? formatAddress(address) : `[${formatAddress(address)}]`,
        ...(name === '' ? [] : [name]),
        ...(four ? [String(lease)] : []),
      ].join(','),
    ),
    ...missing.map((name) => `# ${name}: no MAC address is recorded, so it is leased any address`),
  ];
}

/** A dnsmasq.conf; null for a device that leases nothing. */
export function dnsmasqConf(plan: Plan, device: string): string | null {
  const leased = leasedBy(plan, device);
  if (leased.length === 0) return null;
  const asking = asksNames(plan, device);
  const legs = interfacesOf(plan, device).map(({ vlan }) => vlan);
  const served = new Set([...leased.map(({ vlan }) => vlan.id), ...asking.filter((id) => legs.includes(id))]);
  return [
    `# What ${plan.device.get(device)!.name} leases`,
    'bind-dynamic',
    ...listensAt(plan, device, served).map((name) => `interface=${name}`),
    ...(asking.length > 0 ? [] : ['# It answers no names', 'port=0']),
    ...leased.flatMap((leasing) => segment(plan, leasing)),
    '',
  ].join('\n');
}
