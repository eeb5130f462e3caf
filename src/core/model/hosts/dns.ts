import { familyOf, formatAddress, parseAddress } from '../../address';
import { type Plan, type Subnet, badInput, interfaceAddress } from '../../plan';
import { devicesMeant, interfaceNamed } from './named';

type Server = Subnet['dns'][number];

const serverText = (plan: Plan, subnet: Subnet, server: Server): string => {
  if ('literal' in server) return formatAddress(server.literal);
  const address = interfaceAddress(plan, server.interface, familyOf(subnet.prefix.address));
  return address ? formatAddress(address.address) : 'no address';
};

/** DNS servers of a subnet as addresses, recorded hosts resolved. */
export const dnsText = (plan: Plan, subnet: Subnet): string =>
  subnet.dns.map((server) => serverText(plan, subnet, server)).join(', ');

/**
 * DNS servers as typed, by address or host name. One that is there already stays what it is: a recorded host is shown by its
 * address, and would else no longer be followed when that changes. Throws a Refusal.
 */
export function typedDns(plan: Plan, subnet: Subnet, text: string): Server[] {
  const left = [...subnet.dns];
  return text
    .split(',')
    .map((item) => item.trim())
    .filter(Boolean)
    .flatMap((item) =>
      left.some((server) => serverText(plan, subnet, server) === item) ? [item] : item.split(/\s+/),
    )
    .map((item): Server => {
      const address = parseAddress(item);
      const written = address === null ? item : formatAddress(address);
      const at = left.findIndex((server) => serverText(plan, subnet, server) === written);
      if (at >= 0) return left.splice(at, 1)[0]!;
      if (address !== null) return { literal: address };
      if (devicesMeant(plan, item).length === 0)
        throw badInput(
          `“${item}” is neither an address nor a host of this site; write 192.168.20.1 or a host name.`,
          'dns',
        );
      return { interface: interfaceNamed(plan, item, subnet.vlan).id };
    });
}
