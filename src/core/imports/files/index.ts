import { readDnsmasq } from './dnsmasq';
import { readHosts } from './hosts';
import { readKea } from './kea';
import { readNft } from './nft';
import type { FoundFile } from './read-file';
import { readZone } from './zone';

export type { FoundFile, FoundTable, LeftOut } from './read-file';

/** Files of other programs that are read, by what they are called where one is chosen. */
export const fileKinds = [
  { id: 'table', title: 'a table (CSV)' },
  { id: 'dnsmasq', title: 'a configuration of dnsmasq' },
  { id: 'kea', title: 'a configuration of Kea' },
  { id: 'nft', title: 'a ruleset of nftables' },
  { id: 'hosts', title: 'a hosts file' },
  { id: 'zone', title: 'a zone' },
] as const;
export type FileKind = (typeof fileKinds)[number]['id'];

const readers: Readonly<Record<Exclude<FileKind, 'table'>, (text: string) => FoundFile>> = {
  dnsmasq: readDnsmasq,
  kea: readKea,
  nft: readNft,
  hosts: readHosts,
  zone: readZone,
};
/** A text as what it was taken for. Throws a Refusal where it is nothing of the kind. */
export const readAs = (kind: Exclude<FileKind, 'table'>, text: string): FoundFile => readers[kind](text);

/** What a text looks like, by its name and by what stands in it. */
export function kindOfFile(name: string, text: string): FileKind {
  const head = text.slice(0, 20_000);
  if (/"Dhcp4"\s*:/.test(head)) return 'kea';
  if (/^\s*(--)?(dhcp-range|dhcp-host|host-record|dhcp-option|listen-address)\s*=/m.test(head))
    return 'dnsmasq';
  if (/^\s*(add )?(table|chain)\s+\w+.*\{\s*$/m.test(head)) return 'nft';
  if (/\bSOA\b/.test(head) || /\.zone$/i.test(name) || /^\$(ORIGIN|TTL)\b/im.test(head)) return 'zone';
  if (
    /^\s*[\da-f.:]{3,}[ \t]+[\w.-]+/im.test(head) &&
    !/[,;]/.test(head.split('\n').find((l) => /^\s*\d/.test(l)) ?? ',')
  )
    return 'hosts';
  return 'table';
}
