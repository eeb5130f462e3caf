import { type IpAddress, formatAddress, parseAddress, parseMask } from '@/core/address';
import { badInput } from '@/core/plan';

/** An address with its mask as boxes come with it: 192.168.0.1/24; empty where nobody looked it up. */
export const factoryAddressText = (address: IpAddress | null, length: number): string =>
  address === null ? '' : `${formatAddress(address)}/${length}`;

/** The same as it is typed; without a mask it is that of most boxes. Throws a Refusal. */
export function factoryAddress(text: string): { readonly address: string | null; readonly length?: number } {
  if (text === '') return { address: null };
  const [host = '', mask = '24'] = text.split('/');
  const [address, length] = [parseAddress(host.trim()), parseMask(mask.trim())];
  if (address === null || length === null || length < 8 || length > 30)
    throw badInput(
      `“${text}” is no address with a mask; write one like 192.168.0.1/24, as the box has it when it is new.`,
      'address',
    );
  return { address: formatAddress(address), length };
}
