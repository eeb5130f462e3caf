import {
  formatAddress,
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

/**
 * Finds what a person means by a few characters: an address (exact, or `.24` for a last octet), a prefix, a MAC in any
 * spelling or part of one, a VLAN id, a name or a code, a box or a port (`sw-a 7`). At most `limit` hits, the best first.
 */
export function findInPlan(plan: Plan, text: string, limit = 20): Hit[] {
  const query = text.trim().toLowerCase();
  if (query === '') return [];
  const hits: Hit[] = [];
  const address = parseAddress(query);
  const prefix = parsePrefix(query)?.prefix;
  const hex = query.replace(/[:\-.]/g, '');
  const mac = parseMac(query);
  const macPart = /^[0-9a-f]{4,12}$/.test(hex) && /[:\-.]|[a-f]/.test(query) ? hex.toUpperCase() : null;
  const lastOctet = /^\.(\d{1,3})$/.exec(query)?.[1];

  const segmentHit = (vlan: Vlan, subnet: string | null, score: number) => {
    const shown = subnetsOf(plan, vlan.id)
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
    const score = String(vlan.vid) === query || `vlan ${vlan.vid}` === query ? 4 : words;
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
    if (lastOctet) return formatAddress(entry.address).endsWith(`.${lastOctet}`) ? 2 : 0;
    if (macPart && item.mac?.replaceAll(':', '').includes(macPart)) return 2;
    return Math.max(
      textScore(device.name, query),
      entry.note ? Math.min(1, textScore(entry.note, query)) : 0,
    );
  }
  /** Boxes by name, place, serial or asset tag; `sw-a 7` is a port. */
  function gearHits(): void {
    const asked = /^(\S+)\s+(\d{1,3})$/.exec(query);
    for (const box of plan.box.values()) {
      const device = plan.device.get(box.device)!;
      const port =
        asked && device.name.toLowerCase() === asked[1]
          ? portsOf(plan, device.id).find((item) => item.number === Number(asked[2]))
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
