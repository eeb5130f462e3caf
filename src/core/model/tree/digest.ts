import { hmac } from '@noble/hashes/hmac.js';
import { md5 } from '@noble/hashes/legacy.js';

/** The key of IEEE 802.1Q-2022 table 13-2. It protects nothing; it only makes digests comparable. */
const KEY = Uint8Array.from(
  '13AC06A62E47FD51F95D2BA243CD0346'.match(/../g)!.map((pair) => Number.parseInt(pair, 16)),
);

/**
 * The configuration digest of an MST region (clause 13.8): HMAC-MD5 (RFC 2104) of 4096 elements of two octets, the
 * instance number of each VLAN id from 0 to 4095; the first and the last are always zero. Upper-case hexadecimal.
 */
export function configurationDigest(instanceOf: ReadonlyMap<number, number>): string {
  const table = new Uint8Array(4096 * 2);
  for (const [vid, instance] of instanceOf)
    if (vid > 0 && vid < 4095) {
      table[vid * 2] = instance >> 8;
      table[vid * 2 + 1] = instance & 0xff;
    }
  return [...hmac(md5, KEY, table)]
    .map((octet) => octet.toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase();
}
