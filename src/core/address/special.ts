import { type Prefix, covers, overlaps, parsePrefix } from './prefix';

export interface SpecialBlock {
  readonly prefix: Prefix;
  readonly name: string;
  readonly source: string;
  /** May stand inside a site: private and locally assigned ranges. */
  readonly inside: 'yes' | 'documentation' | 'warn' | 'no';
}

const block = (text: string, name: string, source: string, inside: SpecialBlock['inside']): SpecialBlock => ({
  prefix: parsePrefix(text)!.prefix,
  name,
  source,
  inside,
});

/** Special-purpose address blocks (RFC 6890 registries) with what they mean for a segment of a site. */
export const SPECIAL_BLOCKS: readonly SpecialBlock[] = [
  block('0.0.0.0/8', 'this network', 'RFC 1122', 'no'),
  block('10.0.0.0/8', 'private', 'RFC 1918', 'yes'),
  block('100.64.0.0/10', 'shared by providers', 'RFC 6598', 'warn'),
  block('127.0.0.0/8', 'loopback', 'RFC 1122', 'no'),
  block('169.254.0.0/16', 'link local', 'RFC 3927', 'warn'),
  block('172.16.0.0/12', 'private', 'RFC 1918', 'yes'),
  block('192.0.0.0/24', 'protocol assignments', 'RFC 6890', 'no'),
  block('192.0.2.0/24', 'documentation', 'RFC 5737', 'documentation'),
  block('192.168.0.0/16', 'private', 'RFC 1918', 'yes'),
  block('198.18.0.0/15', 'benchmarking', 'RFC 2544', 'no'),
  block('198.51.100.0/24', 'documentation', 'RFC 5737', 'documentation'),
  block('203.0.113.0/24', 'documentation', 'RFC 5737', 'documentation'),
  block('224.0.0.0/4', 'multicast', 'RFC 5771', 'no'),
  block('240.0.0.0/4', 'reserved', 'RFC 1112', 'no'),
  block('::/128', 'unspecified', 'RFC 4291', 'no'),
  block('::1/128', 'loopback', 'RFC 4291', 'no'),
  block('::ffff:0:0/96', 'IPv4-mapped', 'RFC 4291', 'no'),
  block('100::/64', 'discard only', 'RFC 6666', 'no'),
  block('2001:db8::/32', 'documentation', 'RFC 3849', 'documentation'),
  block('fc00::/7', 'unique local', 'RFC 4193', 'yes'),
  block('fe80::/10', 'link local', 'RFC 4291', 'no'),
  block('ff00::/8', 'multicast', 'RFC 4291', 'no'),
];

/** The special block that covers the prefix, or that it reaches into; null for ordinary public space. */
export const specialBlockOf = (prefix: Prefix): SpecialBlock | null =>
  SPECIAL_BLOCKS.find((special) => covers(special.prefix, prefix)) ??
  SPECIAL_BLOCKS.find((special) => overlaps(special.prefix, prefix)) ??
  null;
