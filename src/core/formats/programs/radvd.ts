import { formatAddress, formatPrefix, prefixFamily } from '../../address';
import { type Plan, dnsOf, interfacesOf, subnetsOf } from '../../plan';
import { legName } from '../interface-names';
import { soundDomain } from './leasing';

/** The router advertisements of a box as radvd reads them (RFC 4861; DNS by RFC 8106). */

/** A radvd.conf; null for a device that advertises nothing. */
export function radvdConf(plan: Plan, device: string): string | null {
  // Two cards in one segment are one interface of it.
  const vlans = new Set(interfacesOf(plan, device).map(({ vlan }) => vlan));
  const blocks = [...vlans].flatMap((id) => {
    if (id === null) return [];
    const vlan = plan.vlan.get(id)!;
    const subnets = subnetsOf(plan, id).filter(
      ({ prefix, advertised }) => prefixFamily(prefix) === 6 && advertised,
    );
    if (subnets.length === 0) return [];
    const leases = subnets.some((subnet) => plan.pool.group(subnet.id).size > 0);
    const dns = [...new Set(subnets.flatMap((subnet) => dnsOf(plan, subnet)).map(formatAddress))];
    const domains = [...new Set(subnets.map((subnet) => soundDomain(plan, subnet)).filter(Boolean))];
    return [
      [
        `# ${vlan.name}, VLAN ${vlan.vid}`,
        `interface ${legName(plan, device, id)} {`,
        '  AdvSendAdvert on;',
        `  AdvManagedFlag ${leases ? 'on' : 'off'};`,
        ...subnets.map(
          ({ prefix }) =>
            // A host makes its own address only in a prefix of 64 bits (RFC 4862 section 5.5.3).
            `  prefix ${formatPrefix(prefix)} { AdvOnLink on; AdvAutonomous ${prefix.length === 64 ? 'on' : 'off'}; };`,
        ),
        ...(dns.length === 0 ? [] : [`  RDNSS ${dns.join(' ')} { };`]),
        ...(domains.length === 0 ? [] : [`  DNSSL ${domains.join(' ')} { };`]),
        '};',
        '',
      ].join('\n'),
    ];
  });
  return blocks.length === 0 ? null : blocks.join('\n');
}
