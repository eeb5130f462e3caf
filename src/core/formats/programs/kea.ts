import { formatAddress, formatPrefix, prefixFamily } from '../../address';
import type { Plan } from '../../plan';
import { telephoneTold } from '../telephones';
import { type Leasing, leasedBy, listensAt } from './leasing';

/** The IPv4 leases of a box as Kea reads them (kea-dhcp4). */

interface Option {
  readonly name?: string;
  readonly code?: number;
  readonly 'csv-format'?: boolean;
  readonly data: string;
}

const hex = (octets: readonly number[]): string =>
  octets.map((octet) => octet.toString(16).padStart(2, '0')).join('');
const octetsOfText = (text: string): number[] => [...new TextEncoder().encode(text)];
const octetsOfAddress = (text: string): number[] => text.split('.').map(Number);
const isAddress = (text: string): boolean => /^\d+(\.\d+){3}$/.test(text);

/** What telephones are told, by number: 66 is text (RFC 2132), 150 addresses (RFC 5859), 120 one kind byte before them (RFC 3361). */
function telephoneOption(told: string): Option {
  const at = told.indexOf(',');
  const [name, value] = [told.slice(0, at), told.slice(at + 1)];
  if (name === '66') {
    const text = value.slice(1, -1).replace(/\\(["\\])/g, '$1');
    return { code: 66, 'csv-format': false, data: hex(octetsOfText(text)) };
  }
  if (name === '150') return { code: 150, 'csv-format': false, data: hex(octetsOfAddress(value)) };
  const labels = value.split('.').flatMap((label) => [label.length, ...octetsOfText(label)]);
  const data = isAddress(value) ? [1, ...octetsOfAddress(value)] : [0, ...labels, 0];
  return { code: 120, 'csv-format': false, data: hex(data) };
}

function subnetOf(plan: Plan, { subnet, ranges, gateway, dns, domain, ...more }: Leasing, id: number) {
  const { vlan, reserved, missing, telephony } = more;
  const options: Option[] = [
    ...(gateway === null ? [] : [{ name: 'routers', data: formatAddress(gateway) }]),
    ...(dns.length === 0 ? [] : [{ name: 'domain-name-servers', data: dns.map(formatAddress).join(', ') }]),
    ...(domain === '' ? [] : [{ name: 'domain-name', data: domain }]),
    ...(telephony ? telephoneTold(plan, telephony).map(telephoneOption) : []),
  ];
  return {
    id,
    subnet: formatPrefix(subnet.prefix),
    // One for the subnet: where its pools differ the shortest, so that nobody keeps an address longer than planned.
    'valid-lifetime': Math.min(...ranges.map(({ lease }) => lease)),
    'user-context': {
      segment: vlan.name,
      vlan: vlan.vid,
      ...(missing.length === 0 ? {} : { 'without MAC address': missing }),
    },
    pools: ranges.map(({ start, end }) => ({ pool: `${formatAddress(start)} - ${formatAddress(end)}` })),
    'option-data': options,
    reservations: reserved.map(({ mac, address, name }) => ({
      'hw-address': mac,
      'ip-address': formatAddress(address),
      ...(name === '' ? {} : { hostname: name }),
    })),
  };
}

/** A kea-dhcp4.conf; null for a device that leases no IPv4 address. */
export function keaConf(plan: Plan, device: string): string | null {
  const leased = leasedBy(plan, device).filter(({ subnet }) => prefixFamily(subnet.prefix) === 4);
  if (leased.length === 0) return null;
  return `${JSON.stringify(
    {
      Dhcp4: {
        'interfaces-config': {
          interfaces: listensAt(plan, device, new Set(leased.map(({ vlan }) => vlan.id))),
        },
        'lease-database': { type: 'memfile', persist: true },
        subnet4: leased.map((leasing, at) => subnetOf(plan, leasing, at + 1)),
      },
    },
    null,
    2,
  )}\n`;
}
