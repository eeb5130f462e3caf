import { type IpAddress, familyOf } from '../../address';
import type { Interface } from '../../plan';

/**
 * What was really set on a network card for an address, as far as it was: a gateway is one for addresses of its own family, null
 * where none was to be set; a mask that IPv4 could have is one of IPv4.
 */
export function ownSettings(
  { ownGateway, ownLength }: Interface,
  address: IpAddress,
): { readonly gateway?: IpAddress | null; readonly length?: number } {
  const family = familyOf(address);
  return {
    ...(ownGateway !== null && familyOf(ownGateway) === family
      ? { gateway: ownGateway === 0 || ownGateway === 0n ? null : ownGateway }
      : {}),
    ...(ownLength !== null && (ownLength > 32 ? 6 : 4) === family ? { length: ownLength } : {}),
  };
}
