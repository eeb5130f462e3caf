import { type IpAddress, type Prefix, contains, familyOf, formatAddress } from '../../address';
import { type Plan, type Subnet, addressesOf, hostOf, siteOf, subnetsOf, vlansOf } from '../../plan';
import { labelOf, soundDomain } from './leasing';

/** The names of a site: as a hosts file, and as zones for a DNS server (RFC 1035). */

interface Named {
  readonly subnet: Subnet;
  readonly label: string;
  readonly domain: string;
  readonly address: IpAddress;
}

/** Every address that belongs to a device for good, with its name. */
const namedIn = (plan: Plan): Named[] =>
  vlansOf(plan).flatMap(({ id }) =>
    subnetsOf(plan, id).flatMap((subnet) =>
      addressesOf(plan, subnet.id).flatMap((address): Named[] => {
        const label = labelOf(hostOf(plan, address).device.name);
        return label === '' || address.assignment === 'virtual'
          ? []
          : [{ subnet, label, domain: soundDomain(plan, subnet), address: address.address }];
      }),
    ),
  );

const whole = ({ label, domain }: Named): string => (domain === '' ? label : `${label}.${domain}`);

/** Lines of a hosts file; a device with several addresses stands once for each. */
export function hostsFile(plan: Plan): string {
  const lines = namedIn(plan).map((named) =>
    [formatAddress(named.address), ...new Set([whole(named), named.label])].join('\t'),
  );
  return [`# Names of ${siteOf(plan).name.replace(/\s+/g, ' ')}`, ...new Set(lines), ''].join('\n');
}

export interface ZoneFile {
  /** Of the zone, without the dot at its end. */
  readonly origin: string;
  readonly text: (serial: number) => string;
}

/** Whole octets of IPv4, whole nibbles of IPv6: zones are cut there (RFC 1035 section 3.5, RFC 3596 section 2.5). */
function reverseLabels(address: IpAddress): string[] {
  if (familyOf(address) === 4) return formatAddress(address).split('.').reverse();
  return [...BigInt(address).toString(16).padStart(32, '0')].reverse();
}
const suffix = (address: IpAddress): string => (familyOf(address) === 4 ? 'in-addr.arpa' : 'ip6.arpa');

/** The reverse zone that holds a prefix; one longer than /24 is held by that of its /24. */
function reverseOrigin({ address, length }: Prefix): string {
  const [bits, most] = familyOf(address) === 4 ? [8, 3] : [4, 32];
  const labels = reverseLabels(address);
  const kept = Math.min(most, Math.floor(length / bits));
  return [...labels.slice(labels.length - kept), suffix(address)].join('.');
}

/** Serial numbers count changes of the zone (RFC 1035 section 3.3.13). */
const zone = (origin: string, server: string, records: readonly string[]): ZoneFile => ({
  origin,
  text: (serial) =>
    [
      `$ORIGIN ${origin}.`,
      '$TTL 3600',
      `@ IN SOA ${server} hostmaster.${server} ${serial} 7200 1800 1209600 3600`,
      `@ IN NS ${server}`,
      ...[...new Set(records)].sort(),
      '',
    ].join('\n'),
});

/**
 * Zones forward and reverse, one for each domain and for each part of the reverse tree. Subnets without a domain have none. The
 * server named in them is the first host of the site that answers names in that domain.
 */
export function zoneFiles(plan: Plan): ZoneFile[] {
  const all = namedIn(plan).filter(({ domain }) => domain !== '');
  const servers = new Set(
    [...plan.subnet.values()].flatMap(({ dns }) =>
      dns.flatMap((server) => ('interface' in server ? [plan.interface.get(server.interface)!.device] : [])),
    ),
  );
  const labels = new Set([...servers].map((id) => labelOf(plan.device.get(id)!.name)));
  const serverOf = (domain: string): string => {
    const own = all.find((one) => one.domain === domain && labels.has(one.label));
    const any = own ?? all.find(({ label }) => labels.has(label));
    // Nobody here answers names: whoever loads the zone puts its own name there.
    return any ? `${whole(any)}.` : 'localhost.';
  };
  const forward = new Map<string, string[]>();
  const reverse = new Map<string, { readonly domain: string; readonly records: string[] }>();
  for (const named of all) {
    const { address, domain, label, subnet } = named;
    const own = forward.get(domain) ?? [];
    forward.set(domain, own);
    own.push(`${label} IN ${familyOf(address) === 4 ? 'A' : 'AAAA'} ${formatAddress(address)}`);
    // By mistake it may lie outside; then it is in no zone of this subnet.
    if (!contains(subnet.prefix, address)) continue;
    const origin = reverseOrigin(subnet.prefix);
    const back = reverse.get(origin) ?? { domain, records: [] };
    reverse.set(origin, back);
    const name = [...reverseLabels(address), suffix(address)].join('.').slice(0, -origin.length - 1);
    back.records.push(`${name} IN PTR ${whole(named)}.`);
  }
  return [
    ...[...forward].map(([origin, records]) => zone(origin, serverOf(origin), records)),
    ...[...reverse].map(([origin, { domain, records }]) => zone(origin, serverOf(domain), records)),
  ];
}
