import {
  type AddressRange,
  type IpAddress,
  type Prefix,
  contains,
  familyOf,
  formatAddress,
  formatPrefix,
  lastOf,
  prefixFamily,
} from '../../address';
import type { Looked } from './kind';

/** The law of a range of addresses, with what to do where it is broken. */
export const ordered = {
  holds: ({ start, end }: AddressRange): boolean => familyOf(start) === familyOf(end) && start <= end,
  message: 'The start lies after the end; swap them',
  field: 'end',
} as const;

/** Which end of a range lies outside a subnet, and what to do; null for neither. */
export function outsideOf(
  { start, end }: AddressRange,
  prefix: Prefix,
): { readonly field: 'start' | 'end'; readonly message: string } | null {
  const place = formatPrefix(prefix);
  if (!contains(prefix, start))
    return { field: 'start', message: `${formatAddress(start)} lies outside ${place}; begin inside it.` };
  if (!contains(prefix, end))
    return {
      field: 'end',
      message: `${formatAddress(end)} lies outside ${place}; end at ${formatAddress(lastOf(prefix))} at the latest.`,
    };
  return null;
}

/** A range stays in its subnet, as fixed addresses do. */
export const outsideItsSubnet = (range: AddressRange & { readonly subnet: string }, plan: Looked) => {
  const subnet = plan.subnet!.get(range.subnet) as { readonly prefix: Prefix } | undefined;
  return subnet ? outsideOf(range, subnet.prefix) : null;
};

/** Senders are translated to an address of IPv4; what a provider delegates is a prefix of IPv6 (RFC 8415 section 6.3). */
export const lineOfOtherFamily = ({
  address,
  delegated,
}: {
  readonly address: IpAddress | null;
  readonly delegated: Prefix | null;
}) => {
  if (delegated && prefixFamily(delegated) === 4)
    return {
      field: 'delegated',
      message: `${formatPrefix(delegated)} is IPv4; a provider delegates IPv6, like 2001:db8:40::/56.`,
    } as const;
  return address !== null && familyOf(address) === 6
    ? ({
        field: 'address',
        message: `${formatAddress(address)} is IPv6; the outside address is the IPv4 one that senders are translated to. IPv6 is delegated as a prefix.`,
      } as const)
    : null;
};
