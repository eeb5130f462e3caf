/**
 * Reads an EUI-48 address in the common spellings (00:00:5E:00:53:01, 00-00-5e-00-53-01, 0000.5e00.5301,
 * 00005E005301, single-digit octets) and returns it as upper-case pairs with colons; null when it is not one.
 */
export function parseMac(text: string): string | null {
  const trimmed = text.trim();
  const octets = /^[0-9a-f]{1,2}([:\-. ][0-9a-f]{1,2}){5}$/i.test(trimmed)
    ? trimmed.split(/[:\-. ]/).map((octet) => octet.padStart(2, '0'))
    : trimmed.replace(/[:\-. ]/g, '').match(/../g);
  const hex = octets?.join('') ?? '';
  if (!/^[0-9a-f]{12}$/i.test(hex) || trimmed.replace(/[:\-. ]/g, '').length > 12) return null;
  return hex.toUpperCase().match(/../g)!.join(':');
}

/** True for group addresses (IEEE 802 I/G bit, the lowest of the first octet): never the address of one network card. */
export function isGroupMac(mac: string): boolean {
  const code = mac.charCodeAt(1);
  // Odd digits have odd character codes, the odd letters B, D and F even ones.
  return (code & 1) === (code < 64 ? 1 : 0);
}
