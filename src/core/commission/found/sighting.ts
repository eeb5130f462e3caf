import { type IpAddress, formatAddress, isGroupMac, parseAddress, parseMac } from '../../address';

/** What a list from the site says of one device. */

/** Where a list says something, in its own words; empty where it says nothing. */
export interface Row {
  /** Line in the text, from 1. */
  readonly line: number;
  readonly mac?: string;
  readonly address?: string;
  readonly name?: string;
  readonly vlan?: string;
  readonly box?: string;
  readonly port?: string;
  /** The DHCP server that answered. */
  readonly server?: string;
}

export interface Sighting {
  readonly line: number;
  readonly mac: string | null;
  readonly address: IpAddress | null;
  readonly name: string;
  readonly vid: number | null;
  /** The box it is seen at, by name; empty for the one the list was read at. */
  readonly box: string;
  readonly port: string;
  readonly server: IpAddress | null;
}

export interface Skipped {
  readonly line: number;
  readonly why: string;
}

const NO_NAME = /^(\?|\*|-|--|unknown|none|n\/a)$/i;

/** A row with what it says made sure of; why it is passed over where it says nothing that can be compared. */
export function sightingOf(row: Row): Sighting | Skipped {
  const { line, box = '', port = '' } = row;
  const text = (value: string | undefined) => (value ?? '').trim();
  const skipped = (why: string): Skipped => ({ line, why });
  const [macText, addressText, vlanText, serverText] = [row.mac, row.address, row.vlan, row.server].map(text);
  const mac = macText ? parseMac(macText) : null;
  if (macText && mac === null)
    return skipped(`“${macText}” is no MAC address; it has twelve hexadecimal digits like 00:00:5E:00:53:01`);
  if (mac !== null && (isGroupMac(mac) || mac === '00:00:00:00:00:00'))
    return skipped(`${mac} is no address of a single network card`);
  const address = addressText ? parseAddress(addressText.replace(/[/%].*$/, '')) : null;
  if (addressText && address === null) return skipped(`“${addressText}” is no IP address`);
  // RFC 1122 3.2.1.3, RFC 4291 2.5.3 and 2.5.6: of one box or one wire only.
  if (address !== null && /^(fe[89ab]|127\.|::1$)/i.test(formatAddress(address)))
    return skipped(`${formatAddress(address)} is of its own box or wire only`);
  const server = serverText ? parseAddress(serverText) : null;
  if (serverText && server === null) return skipped(`the server “${serverText}” is no IP address`);
  const vid = /^\d+$/.test(vlanText!) ? Number(vlanText) : null;
  if (vlanText && (vid === null || vid < 1 || vid > 4094))
    return skipped(`“${vlanText}” is no VLAN id; it is a number from 1 to 4094`);
  if (mac === null && address === null && server === null)
    return skipped('neither a MAC address nor an IP address stands in it');
  const name = text(row.name).split('.')[0]!;
  return {
    line,
    mac,
    address,
    name: NO_NAME.test(name) ? '' : name,
    vid,
    box: text(box),
    port: text(port),
    server,
  };
}
