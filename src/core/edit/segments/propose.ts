import {
  type IpAddress,
  addOffset,
  packPrefixes,
  type Prefix,
  usableHosts,
  type AddressRange,
  countOf,
  endOf,
} from '../../address';
import { type Plan, siteOf, type Purpose, type Site, type Vlan, vlansOf } from '../../plan';
import {
  DEFAULT_LEASE,
  poolNeed,
  prefixLengthFor,
  proposeLease,
  subnetNeed,
  purposeDefaults,
  spareColours,
  bandsOf,
  habitualGateway,
  isFree,
  takenPrefixes,
  thirdOctetPlaces,
  usableSpace,
} from '../../model/segments';

/** VLAN ids that some equipment keeps for itself, and 1, the factory default of every port. */
export const isReservedVid = (vid: number): boolean => vid === 1 || (vid >= 1002 && vid <= 1005);

/** Where a subnet of this need wants to stand: by the VLAN id where the school asks for it, else best fit. */
export function proposePrefix(plan: Plan, vid: number, length: number): Prefix | null {
  const site = siteOf(plan);
  const usable = usableSpace(site);
  const space = (usable.length ? usable : site.space).filter((block) => typeof block.address === 'number');
  if (site.numbering === 'third-octet') {
    const place = thirdOctetPlaces({ space }, vid, length).find((candidate) => isFree(plan, candidate));
    if (place) return place;
  }
  const packing = packPrefixes(space, takenPrefixes(plan), [{ key: 'new', length }]);
  return packing.placed.get('new') ?? null;
}

/**
 * The next free VLAN id of a LAN: the next multiple of ten that is above all in use and has its subnet free, then
 * any free id. Null when all 4,094 are taken.
 */
export function proposeVid(plan: Plan, lan: string, length = 24): number | null {
  const site = siteOf(plan);
  const used = new Set(
    vlansOf(plan)
      .filter((vlan) => vlan.lan === lan)
      .map((vlan) => vlan.vid),
  );
  const highest = Math.max(0, ...used);
  const tens = Array.from({ length: 409 }, (_, i) => (i + 1) * 10);
  const above = tens.filter((vid) => vid > highest && vid <= 4090);
  const candidates = [...above, ...tens].filter((vid) => !used.has(vid) && !isReservedVid(vid));
  if (site.numbering === 'third-octet') {
    const fits = candidates.find((vid) =>
      thirdOctetPlaces(site, vid, Math.max(24, length)).some((place) => isFree(plan, place)),
    );
    if (fits !== undefined) return fits;
  }
  if (candidates.length > 0) return candidates[0]!;
  for (let vid = 2; vid <= 4094; vid++) if (!used.has(vid) && !isReservedVid(vid)) return vid;
  return null;
}

/** A code that no other segment of the LAN has: the wished one, else letters of the name, else a letter and a digit. */
export function proposeCode(plan: Plan, lan: string, wished: string, name: string): string {
  const used = new Set(
    vlansOf(plan)
      .filter((vlan) => vlan.lan === lan)
      .map((vlan) => vlan.code),
  );
  const letters = name.toUpperCase().replace(/[^A-Z0-9]/g, '');
  const fromName = [...letters.slice(1)].map((letter) => letters[0]! + letter);
  const numbered = Array.from({ length: 99 }, (_, i) => `${wished[0]}${i + 2}`);
  return (
    [wished, ...fromName, ...numbered].find((code) => /^[A-Z0-9]{2,3}$/.test(code) && !used.has(code)) ??
    wished
  );
}

export function proposeColour(plan: Plan, wished: string): string {
  const used = new Set(vlansOf(plan).map((vlan) => vlan.colour));
  return [wished, ...spareColours].find((colour) => !used.has(colour)) ?? wished;
}

function proposeName(plan: Plan, wished: string): string {
  const used = new Set(vlansOf(plan).map((vlan) => vlan.name));
  const names = [wished, ...Array.from({ length: 999 }, (_, i) => `${wished} ${i + 2}`)];
  return names.find((name) => !used.has(name)) ?? wished;
}

/**
 * The pool the site's habits put into a subnet: its pool band, shortened to the need when sized to need. Where the band does
 * not hold the need, the band of fixed addresses before it yields.
 */
export function proposePool(
  site: Site,
  prefix: Prefix,
  vlan: Pick<Vlan, 'devices' | 'growth' | 'transient'>,
): { readonly range: AddressRange; readonly lease: number } | null {
  const { pool: band, fixed } = bandsOf(site, prefix);
  if (!band || prefix.length > 30) return null;
  const room = countOf(band);
  const spare = fixed ? countOf(fixed) : 0;
  const lease = proposeLease(vlan, 0, room + spare) ?? DEFAULT_LEASE;
  const need = poolNeed(vlan, 0, lease).total;
  const before = Math.min(spare, Math.max(0, need - room));
  const count = Math.max(1, Math.min(room, Math.max(need, Math.ceil(room / 2))));
  return { range: { start: addOffset(band.start, -before), end: endOf(band.start, count) }, lease };
}

/** Does a segment of a purpose usually lease addresses? */
export const hasPool = (site: Site, purpose: Purpose): boolean =>
  purpose !== 'transit' && (purposeDefaults[purpose].pool || site.fixed === 'reservation');

export interface SegmentWish {
  readonly purpose: Purpose;
  readonly lan?: string;
  readonly vid?: number;
  readonly name?: string;
  readonly code?: string;
  readonly colour?: string;
  readonly internet?: boolean;
  readonly devices?: number;
  readonly growth?: number;
  /** null asks for a VLAN without IPv4 (layer 2 only). */
  readonly prefix?: Prefix | null;
  readonly gateway?: IpAddress | null;
}

export interface SegmentProposal {
  readonly lan: string;
  readonly vid: number | null;
  readonly name: string;
  readonly code: string;
  readonly colour: string;
  readonly internet: boolean;
  readonly devices: number;
  readonly growth: number;
  /** Null for layer 2 only, or when the space has no room (`noRoomFor` then says for what). */
  readonly prefix: Prefix | null;
  readonly noRoomFor: number | null;
  readonly need: string;
  readonly gateway: IpAddress | null;
  readonly pool: AddressRange | null;
  readonly lease: number;
  readonly fits: number;
}

/** Fills in everything a new segment needs from its purpose and whatever the user has already decided. */
export function proposeSegment(plan: Plan, wish: SegmentWish): SegmentProposal {
  const site = siteOf(plan);
  const defaults = purposeDefaults[wish.purpose];
  const lan = wish.lan ?? [...plan.lan.values()][0]!.id;
  const name = wish.name ?? proposeName(plan, defaults.label);
  const load = { devices: wish.devices ?? defaults.devices, growth: wish.growth ?? 50, transient: null };
  const need = subnetNeed(load, site, DEFAULT_LEASE);
  const transit = wish.purpose === 'transit';
  const toNeed = prefixLengthFor(transit ? 2 : need.total, transit) ?? 8;
  const length = site.sizing === 'slash-24' && !transit ? Math.min(24, toNeed) : toNeed;
  const vid = wish.vid ?? proposeVid(plan, lan, length);
  const layer2 = wish.prefix === null || (wish.prefix === undefined && wish.purpose === 'parking');
  const prefix = layer2 ? null : (wish.prefix ?? (vid === null ? null : proposePrefix(plan, vid, length)));
  const gateway =
    prefix === null ? null : wish.gateway === undefined ? habitualGateway(site, prefix) : wish.gateway;
  const pool = prefix !== null && hasPool(site, wish.purpose) ? proposePool(site, prefix, load) : null;
  return {
    ...load,
    lan,
    vid,
    name,
    code: wish.code ?? proposeCode(plan, lan, defaults.code, name),
    colour: wish.colour ?? proposeColour(plan, defaults.colour),
    internet: wish.internet ?? defaults.internet,
    prefix,
    noRoomFor: prefix === null && !layer2 ? length : null,
    need: need.text,
    gateway,
    pool: pool?.range ?? null,
    lease: pool?.lease ?? DEFAULT_LEASE,
    fits: prefix === null ? 0 : usableHosts(prefix),
  };
}
