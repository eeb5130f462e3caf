import {
  type IpAddress,
  type Prefix,
  compareAddresses,
  formatAddress,
  isShortAddress,
  parseAddress,
  parseMac,
  contains,
  formatPrefix,
  overlaps,
  parsePrefix,
} from '../address';
import {
  type Plan,
  type Address,
  type Vlan,
  portTitle,
  addressesOf,
  hostOf,
  subnetsOf,
  vlansOf,
} from '../plan';
import { portsOf } from '../model/wiring';

export interface Hit {
  readonly kind: 'segment' | 'address' | 'gear';
  readonly vlan: string | null;
  readonly subnet: string | null;
  readonly address: string | null;
  /** A box, and the port of it that was asked for. */
  readonly device: string | null;
  readonly port: string | null;
  readonly title: string;
  readonly detail: string;
  /** Better hits first: exact before prefix before inside. */
  readonly score: number;
}

const textScore = (value: string, query: string): number => {
  const plain = value.toLowerCase();
  return plain === query ? 3 : plain.startsWith(query) ? 2 : plain.includes(query) ? 1 : 0;
};

/** What a few typed characters may mean; null and false where they cannot. */
export interface FindQuery {
  /** In small letters. */
  readonly text: string;
  readonly address: IpAddress | null;
  readonly prefix: Prefix | null;
  readonly mac: string | null;
  /** Hexadecimal digits of a MAC address, in capitals. */
  readonly macPart: string | null;
  /** The last octets of an IPv4 address, `.24` or `.152.20`: its bits under a mask. */
  readonly ending: { readonly value: number; readonly mask: number } | null;
  readonly vid: number | null;
  /** `sw-a 7`: a box by name and the number of a port. */
  readonly port: { readonly box: string; readonly number: number } | null;
}

function endingOf(text: string): FindQuery['ending'] {
  const octets = text.startsWith('.') && isShortAddress(text) ? text.slice(1).split('.').map(Number) : [];
  if (octets.length === 0 || octets.some((octet) => octet > 255)) return null;
  return {
    value: octets.reduce((value, octet) => value * 256 + octet, 0),
    mask: 256 ** octets.length - 1,
  };
}

/** Reads what somebody types to find something; null for nothing. */
export function findQuery(typed: string): FindQuery | null {
  const text = typed.trim().toLowerCase();
  if (text === '') return null;
  const hex = text.replace(/[:\-.]/g, '');
  const vid = /^(?:vlan )?(\d{1,4})$/.exec(text)?.[1];
  const port = /^(\S+)\s+(\d{1,3})$/.exec(text);
  return {
    text,
    address: parseAddress(text),
    prefix: parsePrefix(text)?.prefix ?? null,
    mac: parseMac(text),
    macPart: /^[0-9a-f]{4,12}$/.test(hex) && /[:\-.]|[a-f]/.test(text) ? hex.toUpperCase() : null,
    ending: endingOf(text),
    vid: vid === undefined ? null : Number(vid),
    port: port && { box: port[1]!, number: Number(port[2]) },
  };
}

/**
 * Finds what a person means by a few characters: an address (exact, or `.24` for how it ends), a prefix, a MAC in any
 * spelling or part of one, a VLAN id, a name or a code, a box or a port (`sw-a 7`). At most `limit` hits, the best first.
 */
export function findInPlan(plan: Plan, typed: string, limit = 20): Hit[] {
  const asked = findQuery(typed);
  if (!asked) return [];
  const { text: query, address, prefix, mac, macPart, ending, vid } = asked;
  const hits: Hit[] = [];

  const segmentHit = (vlan: Vlan, subnet: string | null, score: number) => {
    const shown = [...subnetsOf(plan, vlan.id)]
      .sort((a, b) => compareAddresses(a.prefix.address, b.prefix.address))
      .map((item) => formatPrefix(item.prefix))
      .join(', ');
    hits.push({
      kind: 'segment',
      vlan: vlan.id,
      subnet,
      address: null,
      device: null,
      port: null,
      title: `${vlan.vid} ${vlan.code} ${vlan.name}`,
      detail: shown || 'layer 2 only',
      score,
    });
  };
  for (const vlan of vlansOf(plan)) {
    const words = Math.max(textScore(vlan.name, query), textScore(vlan.code, query) === 3 ? 3 : 0);
    const score = vlan.vid === vid ? 4 : words;
    const subnet = subnetsOf(plan, vlan.id).find(
      (item) =>
        (prefix && overlaps(item.prefix, prefix)) || (address !== null && contains(item.prefix, address)),
    );
    if (score > 0 || subnet) segmentHit(vlan, subnet?.id ?? null, Math.max(score, subnet ? 2 : 0));
    for (const item of subnetsOf(plan, vlan.id))
      for (const entry of addressesOf(plan, item.id)) {
        const found = scoreOf(entry);
        if (found > 0) addressHit(vlan, entry, found);
      }
  }
  function scoreOf(entry: Address): number {
    if (address !== null) return entry.address === address ? 5 : 0;
    const { device, interface: item } = hostOf(plan, entry);
    if (mac) return item.mac === mac ? 5 : 0;
    if (ending !== null)
      return typeof entry.address === 'number' && (entry.address & ending.mask) === ending.value ? 2 : 0;
    if (macPart && item.mac?.replaceAll(':', '').includes(macPart)) return 2;
    return Math.max(
      textScore(device.name, query),
      entry.note ? Math.min(1, textScore(entry.note, query)) : 0,
    );
  }
  /** Boxes by name, place, serial or asset tag; `sw-a 7` is a port. */
  function gearHits(): void {
    for (const box of plan.box.values()) {
      const device = plan.device.get(box.device)!;
      const port =
        asked!.port?.box === device.name.toLowerCase()
          ? portsOf(plan, device.id).find((item) => item.number === asked!.port!.number)
          : undefined;
      const place = Math.min(
        1,
        Math.max(...[box.location, box.serial, box.assetTag].map((value) => textScore(value, query))),
      );
      const score = port ? 6 : Math.max(textScore(device.name, query), place);
      if (score === 0) continue;
      hits.push({
        kind: 'gear',
        vlan: null,
        subnet: null,
        address: null,
        device: device.id,
        port: port?.id ?? null,
        title: port ? portTitle(plan, port) : device.name,
        detail: [box.model, box.location, port?.label].filter(Boolean).join(', '),
        score,
      });
    }
  }
  function addressHit(vlan: Vlan, entry: Address, score: number): void {
    const { device, interface: item } = hostOf(plan, entry);
    hits.push({
      kind: 'address',
      vlan: vlan.id,
      subnet: entry.subnet,
      address: entry.id,
      device: null,
      port: null,
      title: `${formatAddress(entry.address)} ${device.name}`,
      detail: [vlan.name, item.mac, entry.note].filter(Boolean).join(', '),
      score,
    });
  }
  gearHits();
  return hits.sort((a, b) => b.score - a.score).slice(0, limit);
}
