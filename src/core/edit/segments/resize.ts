import {
  leaseOf,
  needOf,
  grown,
  prefixLengthFor,
  transientNeed,
  foreignNetworks,
  takenPrefixes,
  thirdOctetPlaces,
  usableSpace,
} from '../../model/segments';
import * as z from 'zod';
import {
  packPrefixes,
  type PackRequest,
  type Prefix,
  formatPrefix,
  prefixFamily,
  samePrefix,
  formatAddress,
  widthOf,
} from '../../address';
import {
  prefixCodec,
  type Draft,
  operation,
  type Plan,
  siteOf,
  badInput,
  type Address,
  type Subnet,
  type Vlan,
  Refusal,
  addressesOf,
  hostOf,
  vlansOf,
  overtaken,
} from '../../plan';
import { proposePrefix } from './propose';
import { takeLiteralsAlong } from './literals';
import { renumber } from './renumber';

/** The first few of some addresses, as a person would name them. */
const names = (plan: Plan, addresses: readonly Address[]) => {
  const shown = addresses
    .slice(0, 3)
    .map((address) => `${hostOf(plan, address).device.name} ${formatAddress(address.address)}`);
  return addresses.length > 3 ? `${shown.join(', ')} and ${addresses.length - 3} more` : shown.join(', ');
};

function refuseHomeless(plan: Plan, prefix: Prefix, homeless: readonly Address[], relocated: boolean): never {
  const records = homeless.map((address) => ({ table: 'address' as const, id: address.id }));
  const what = `${homeless.length} fixed address${homeless.length === 1 ? '' : 'es'}`;
  throw new Refusal(
    relocated ? 'no-room' : 'in-use',
    relocated
      ? `${formatPrefix(prefix)} has no room for ${what} (${names(plan, homeless)}); choose a larger subnet.`
      : `${what} would not fit into ${formatPrefix(prefix)}: ${names(plan, homeless)}. Move them to free addresses, or choose a larger subnet.`,
    records,
    ['prefix'],
  );
}

/** Gives subnets other prefixes, and takes along what is in them and what names it. */
function move(
  draft: Draft,
  before: Plan,
  places: readonly (readonly [Subnet, Prefix])[],
  relocate: boolean,
): void {
  const moves = places.map(([subnet, place]) => {
    const moved = renumber(draft, subnet, place, relocate);
    if (moved.homeless.length > 0) refuseHomeless(before, place, moved.homeless, relocate);
    return moved;
  });
  takeLiteralsAlong(draft, before, moves);
}

/**
 * Moves, grows or shrinks a subnet with everything in it. An address stays when the old and the new subnet overlap
 * and it is still usable, otherwise it keeps its host number.
 */
export const setPrefix = operation(
  'setPrefix',
  z.strictObject({
    subnet: z.string(),
    prefix: prefixCodec,
    relocate: z.boolean().default(false),
    seen: prefixCodec.optional(),
  }),
  (draft, { subnet: id, prefix, relocate, seen }) => {
    const before = draft.plan;
    const subnet = draft.need('subnet', id);
    const vlan = draft.need('vlan', subnet.vlan);
    if (overtaken(subnet.prefix, seen, prefix))
      throw new Refusal(
        'changed',
        `${vlan.name}: the subnet was ${formatPrefix(seen)} when you edited it and is ${formatPrefix(subnet.prefix)} now.`,
        [{ table: 'subnet', id }],
        ['prefix'],
      );
    if (prefixFamily(prefix) !== prefixFamily(subnet.prefix))
      throw new Refusal(
        'bad-input',
        `${formatPrefix(subnet.prefix)} is IPv${prefixFamily(subnet.prefix)}; a subnet keeps its family, add a second one instead.`,
        [],
        ['prefix'],
      );
    move(draft, before, [[subnet, prefix]], relocate);
    return `${vlan.name}: ${formatPrefix(subnet.prefix)} → ${formatPrefix(prefix)}`;
  },
);

/** Moves a subnet that stands badly to where the site's habits would put it. */
export const moveToFreeBlock = operation(
  'moveToFreeBlock',
  z.strictObject({ subnet: z.string(), length: z.number().int().min(1).max(128).optional() }),
  (draft, { subnet: id, length }) => {
    const subnet = draft.need('subnet', id);
    const vlan = draft.need('vlan', subnet.vlan);
    const wanted = length ?? subnet.prefix.length;
    const family = prefixFamily(subnet.prefix);
    if (wanted > widthOf(family))
      throw badInput(
        `A subnet of IPv${family} is at most a /${widthOf(family)}, not a /${wanted}.`,
        'length',
      );
    const place = placeFor(draft.plan, vlan, subnet, wanted);
    if (!place)
      throw new Refusal(
        'no-room',
        `No free block of the address space holds a /${wanted}; use Fit or widen the space.`,
      );
    move(draft, draft.plan, [[subnet, place]], true);
    return `${vlan.name}: ${formatPrefix(subnet.prefix)} → ${formatPrefix(place)}`;
  },
);

/** A free prefix of `length` for a subnet: its own place widened or narrowed when that is free, else a new one. */
function placeFor(plan: Plan, vlan: Vlan, subnet: Subnet, length: number): Prefix | null {
  if (prefixFamily(subnet.prefix) === 6) {
    const space = usableSpace(siteOf(plan)).filter((block) => prefixFamily(block) === 6);
    return packPrefixes(space, takenPrefixes(plan), [{ key: '', length }]).placed.get('') ?? null;
  }
  return proposePrefix(plan, vlan.vid, length);
}

/** The length Fit gives a subnet: need plus growth, no smaller than what already stands in it, by the size school. */
export function fittedLength(plan: Plan, vlan: Vlan, subnet: Subnet): number {
  const transit = vlan.purpose === 'transit';
  const fixed = addressesOf(plan, subnet.id).length;
  const visitors = transientNeed(vlan.transient, leaseOf(plan, subnet)).total;
  const need = Math.max(
    transit ? grown(vlan.devices, vlan.growth) + 1 : needOf(plan, vlan, subnet).total,
    fixed + visitors,
  );
  const length = prefixLengthFor(need, transit) ?? 8;
  return siteOf(plan).sizing === 'slash-24' && !transit ? Math.min(24, length) : length;
}

/**
 * Fit: re-packs every IPv4 subnet that is not pinned to need plus growth. Largest first, best fit; with numbering by
 * third octet the octet equals the VLAN id where the rule can hold. Refuses when a subnet finds no place.
 */
export const packSubnets = operation('packSubnets', z.strictObject({}), (draft) => {
  const plan = draft.plan;
  const site = siteOf(plan);
  const moving: { subnet: Subnet; vlan: Vlan }[] = [];
  const taken: Prefix[] = foreignNetworks(draft.plan).map((network) => network.prefix);
  for (const vlan of vlansOf(plan))
    for (const subnet of [...plan.subnet.values()].filter((candidate) => candidate.vlan === vlan.id))
      if (subnet.pinned || prefixFamily(subnet.prefix) === 6) taken.push(subnet.prefix);
      else moving.push({ subnet, vlan });
  const requests = moving.map(({ subnet, vlan }): PackRequest => {
    const length = fittedLength(plan, vlan, subnet);
    return site.numbering === 'third-octet'
      ? { key: subnet.id, length, preferred: thirdOctetPlaces(site, vlan.vid, length) }
      : { key: subnet.id, length };
  });
  const space = site.space.filter((block) => prefixFamily(block) === 4);
  const packing = packPrefixes(space, taken, requests);
  if (packing.unplaced.length > 0) {
    const lacking = moving.filter(({ subnet }) => packing.unplaced.includes(subnet.id));
    const list = lacking
      .map(({ vlan, subnet }) => `${vlan.name} (/${fittedLength(plan, vlan, subnet)})`)
      .join(', ');
    throw new Refusal(
      'no-room',
      `The address space has no room for ${list}. Widen it in Brief, unpin a subnet, or lower devices or growth.`,
      lacking.map(({ vlan }) => ({ table: 'vlan' as const, id: vlan.id })),
    );
  }
  const places = moving
    .map(({ subnet }) => [subnet, packing.placed.get(subnet.id)!] as const)
    .filter(([subnet, place]) => !samePrefix(place, subnet.prefix));
  move(draft, plan, places, true);
  const moved = places.length;
  return moved === 0
    ? 'Fit: every subnet already fits'
    : `Fit: ${moved} subnet${moved === 1 ? '' : 's'} re-packed`;
});

/** Brings the need of a subnet and its size together by growing it, in place when the neighbour is free. */
export const growToNeed = operation('growToNeed', z.strictObject({ subnet: z.string() }), (draft, input) => {
  const subnet = draft.need('subnet', input.subnet);
  const vlan = draft.need('vlan', subnet.vlan);
  if (prefixFamily(subnet.prefix) === 6)
    throw badInput(`${formatPrefix(subnet.prefix)} is IPv6 and holds any number of devices.`, 'subnet');
  const length = Math.min(subnet.prefix.length, fittedLength(draft.plan, vlan, subnet));
  const place = growPlace(draft, vlan, subnet, length);
  if (!place)
    throw new Refusal(
      'no-room',
      `No free block holds a /${length} for ${vlan.name}; use Fit or widen the space.`,
    );
  move(draft, draft.plan, [[subnet, place]], true);
  return `${vlan.name}: ${formatPrefix(subnet.prefix)} → ${formatPrefix(place)}`;
});

function growPlace(draft: Draft, vlan: Vlan, subnet: Subnet, length: number): Prefix | null {
  const site = siteOf(draft.plan);
  const others = [...draft.plan.subnet.values()]
    .filter((other) => other.id !== subnet.id)
    .map((other) => other.prefix);
  const taken = [...others, ...foreignNetworks(draft.plan).map((network) => network.prefix)];
  const space = site.space.filter((block) => prefixFamily(block) === 4);
  const here = { address: subnet.prefix.address, length };
  const size = 2 ** (32 - length);
  const inPlace: Prefix = { ...here, address: Math.floor(Number(here.address) / size) * size };
  const packing = packPrefixes(space, taken, [
    {
      key: '',
      length,
      preferred: [
        inPlace,
        ...(site.numbering === 'third-octet' ? thirdOctetPlaces(site, vlan.vid, length) : []),
      ],
    },
  ]);
  return packing.placed.get('') ?? null;
}
