import { formatAddress } from '../../address';
import { ref } from './fields';
import { deviceName, kind } from './kind';

/** A fixed entry at a box: an address belongs to its MAC address, in its segment. What leases tell it is not recorded. */
export const binding = kind({
  word: 'binding',
  about: 'an address that was entered at a box by hand, so that its guards let it pass',
  since: 9,
  table: 'binding',
  bucket: 'device',
  edited: false,
  fields: {
    device: ref('device', 'removed', 'device'),
    address: ref('address', 'removed', 'address'),
  },
  title: ({ device, address: id }, plan) => {
    const address = plan.address!.get(id) as { address: Parameters<typeof formatAddress>[0] } | undefined;
    return `binding of ${address ? formatAddress(address.address) : 'an address'} at ${deviceName(plan, device)}`;
  },
});
