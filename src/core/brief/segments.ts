import {
  type AddressRange,
  type Prefix,
  addOffset,
  contains,
  countOf,
  formatPrefix,
  lastOf,
  overlaps,
  rangeOf,
  usableHosts,
  usableRange,
} from '../address';
import {
  type Interface,
  type Need,
  type Purpose,
  Refusal,
  type Subnet,
  gatewaysOf,
  type Vlan,
  rankBetween,
  subnetOf,
  vlansOf,
} from '../plan';
import { DEFAULT_LEASE, bandsOf, grown, habitualGateway, poolNeed, prefixLengthFor } from '../model/segments';
import { insertCard, proposePrefix, proposeSegment } from '../edit';
import { Addresses } from './addresses';
import { type Brief, type Group, grownNeed, insideGroups, meantGroups } from './gather';
import type { Decision } from './design';
import type { KeyedDraft } from './keyed';
import { isListed, things } from './things';

/** A segment of a proposal, with what hands out its addresses. */
export interface Segment {
  readonly key: string;
  readonly vlan: Vlan;
  /** Null: nothing in it has an address. */
  readonly subnet: Subnet | null;
  readonly addresses: Addresses | null;
}

interface Wanted {
  readonly key: string;
  readonly purpose: Purpose;
  readonly name: string;
  readonly devices: number;
  readonly growth: number;
  /** Those of them that have fixed addresses, now and with what is to come. */
  readonly fixedNow: number;
  readonly fixed: number;
}

const fixedIn = ({ needs }: Group, count: (need: Need) => number): number =>
  needs
    .filter((need) => things[need.thing].fixed && isListed(need))
    .reduce((sum, need) => sum + count(need), 0);

/** The growth in per cent that makes the whole grow as its parts do. */
const growthOver = (now: number, later: number): number => {
  if (now === 0) return 0;
  let growth = Math.ceil(((later - now) * 100) / now);
  while (grown(now, growth) < later) growth++;
  return Math.min(1000, growth);
};

/** The segments of a brief, the boxes’ own and the one for what is parked among them. */
function wantedOf(brief: Brief, boxes: number): Wanted[] {
  const groups = brief.groups.map((group): Wanted => ({
    key: group.key,
    purpose: group.purpose,
    name: group.name,
    devices: group.devices + (group.key === 'all' ? boxes : 0),
    growth: growthOver(group.devices, group.grown),
    fixedNow: fixedIn(group, ({ count }) => count),
    fixed: fixedIn(group, (need) => grownNeed(brief.site, need)),
  }));
  if (brief.choice.separation === 'flat') return groups;
  const own = { name: '', growth: 0, fixedNow: 0, fixed: 0 };
  return [
    {
      ...own,
      key: 'management',
      purpose: 'management',
      devices: boxes,
      growth: 50,
      fixedNow: boxes,
      fixed: boxes,
    },
    ...groups,
    ...(insideGroups(brief).size > 0
      ? [{ ...own, key: 'transit', purpose: 'transit' as const, devices: 1 }]
      : []),
    { ...own, key: 'parking', purpose: 'parking', devices: 0 },
  ];
}

/** What the plan has already for a purpose: a segment the proposal did not make. */
function standing(draft: KeyedDraft, { purpose, name }: Wanted, used: ReadonlySet<string>): Vlan | undefined {
  return vlansOf(draft.plan).find(
    (vlan) =>
      !used.has(vlan.id) &&
      !draft.isProposed('vlan', vlan.id) &&
      vlan.purpose === purpose &&
      (name === '' || vlan.name.toLowerCase() === name.toLowerCase()),
  );
}

function writeVlan(draft: KeyedDraft, brief: Brief, wanted: Wanted, last: string | null): Vlan {
  const { key, purpose, name, devices, growth } = wanted;
  const had = draft.was('vlan', `vlan ${key}`);
  const firstVid = purpose === 'management' && brief.site.management === 'default-vlan' ? { vid: 1 } : {};
  const isFree = (vid: number) =>
    !vlansOf(draft.plan).some((vlan) => vlan.vid === vid && vlan.id !== had?.id);
  const proposal = proposeSegment(draft.plan, {
    purpose,
    devices,
    growth,
    prefix: null,
    ...(name === '' ? {} : { name }),
    ...firstVid,
    ...(had && isFree(had.vid) ? { vid: had.vid, code: had.code, colour: had.colour, name: had.name } : {}),
  });
  if (proposal.vid === null) throw new Refusal('no-room', 'All VLAN ids are taken.', []);
  const { lan, vid, code, colour } = proposal;
  return draft.under('segments', `vlan ${key}`, () =>
    draft.insert('vlan', {
      lan,
      vid,
      code,
      name: proposal.name,
      colour,
      purpose,
      internet: brief.lines.length > 0 && (wishedOnline(brief, wanted) ?? proposal.internet),
      devices,
      growth,
      transient: null,
      rank: had?.rank ?? rankBetween(last, null),
    }),
  );
}

/** What the wishes say of the Internet for a segment; undefined where they say nothing. */
function wishedOnline(brief: Brief, { key, purpose }: Wanted): boolean | undefined {
  const said = brief.wishes.find(
    ({ from, to, services, decision }) =>
      from === purpose &&
      to === 'internet' &&
      services.length === 0 &&
      meantGroups(brief, from, decision).some((group) => group.key === key),
  );
  return said && said.decision === 'allow';
}

/** Leases a segment needs beside its fixed addresses. */
const leasesFor = (wanted: Wanted): number =>
  wanted.purpose === 'management' || wanted.purpose === 'transit'
    ? 0
    : poolNeed({ ...wanted, transient: null }, wanted.fixedNow, DEFAULT_LEASE).total;

const lengthFor = ({ site }: Brief, wanted: Wanted): number => {
  const { purpose, devices, growth, fixed } = wanted;
  if (purpose === 'transit') return prefixLengthFor(2, true)!;
  const hosts = Math.max(grown(devices, growth), fixed + leasesFor(wanted)) + site.infrastructureBand + 1;
  const toNeed = prefixLengthFor(hosts) ?? 8;
  return site.sizing === 'slash-24' ? Math.min(24, toNeed) : toNeed;
};

function writeSubnet(draft: KeyedDraft, brief: Brief, wanted: Wanted, vlan: Vlan): Subnet {
  const key = `subnet ${wanted.key}`;
  const had = draft.was('subnet', key);
  const length = lengthFor(brief, wanted);
  const fits = had && had.prefix.length <= length && !overlapsAny(draft, had);
  const isStill = had && (had.pinned || fits) ? had.prefix : null;
  const prefix = isStill ?? proposePrefix(draft.plan, vlan.vid, length);
  if (!prefix)
    throw new Refusal(
      'no-room',
      `The address space has no free block of /${length} left for ${vlan.name}; widen it under Habits, or let subnets be sized to their need.`,
      [{ table: 'site', id: brief.site.id }],
      ['space'],
    );
  return draft.under('segments', key, () =>
    draft.insert('subnet', { vlan: vlan.id, prefix, pinned: false, dns: [], domain: '', advertised: true }),
  );
}
const overlapsAny = (draft: KeyedDraft, { id, prefix }: Subnet): boolean =>
  [...draft.plan.subnet.values()].some((other) => other.id !== id && overlaps(other.prefix, prefix));

/** The gateway’s interface and address in a segment, which is its DNS server too. */
function writeGateway(draft: KeyedDraft, brief: Brief, device: string, wanted: Wanted, subnet: Subnet) {
  const item = draft.under('segments', `gateway ${wanted.key}`, () =>
    insertCard(draft, device, { kind: 'vlan', vlan: subnet.vlan }),
  );
  const had = draft.was('address', `gateway address ${wanted.key}`);
  const address =
    had && had.subnet === subnet.id && contains(subnet.prefix, had.address)
      ? had.address
      : habitualGateway(brief.site, subnet.prefix);
  draft.under('segments', `gateway address ${wanted.key}`, () =>
    draft.insert('address', {
      subnet: subnet.id,
      address,
      interface: item.id,
      assignment: 'static',
      gateway: true,
      note: '',
    }),
  );
  draft.update('subnet', subnet.id, { dns: [{ interface: item.id }] });
  return item;
}

/** Where a pool begins and ends: in its band where there is room for it and for what is fixed, else at the top. */
function poolRange(brief: Brief, prefix: Prefix, fixed: number, leases: number): AddressRange | null {
  const bands = bandsOf(brief.site, prefix);
  const band = bands.pool;
  // Without a band for boxes the gateway has the first address of the next one.
  const gateway = habitualGateway(brief.site, prefix);
  const start = band && (band.start === gateway ? addOffset(band.start, 1) : band.start);
  const room = band ? countOf({ start: start!, end: band.end }) : 0;
  if (band && room >= leases && fixed <= (bands.fixed ? countOf(bands.fixed) : 0)) {
    const count = Math.max(leases, Math.ceil(room / 2));
    return { start: start!, end: addOffset(start!, count - 1) };
  }
  const { last } = usableRange(prefix);
  const end = brief.site.gatewayHabit === 'last' ? addOffset(last, -1) : last;
  if (leases === 0 || leases > usableHosts(prefix)) return null;
  return { start: addOffset(end, 1 - leases), end };
}

function writePool(draft: KeyedDraft, brief: Brief, wanted: Wanted, subnet: Subnet, server: Interface): void {
  const leases = leasesFor(wanted);
  const had = draft.was('pool', `pool ${wanted.key}`);
  const whole = rangeOf(subnet.prefix);
  const still =
    had &&
    had.subnet === subnet.id &&
    had.start > whole.start &&
    had.end < lastOf(subnet.prefix) &&
    countOf(had) >= leases
      ? had
      : null;
  const range = still ?? poolRange(brief, subnet.prefix, wanted.fixed, leases);
  if (!range) return;
  draft.under('segments', `pool ${wanted.key}`, () =>
    draft.insert('pool', {
      subnet: subnet.id,
      start: range.start,
      end: range.end,
      lease: DEFAULT_LEASE,
      servedBy: [server.id],
    }),
  );
}

/** Who routes: the gateway, and the layer-3 switch where there is one. */
export interface Routers {
  readonly gateway: string;
  readonly core: string | null;
}

/** The layer-3 switch’s side of the transit link, and the ways over it. */
function writeTransit(
  draft: KeyedDraft,
  brief: Brief,
  { gateway, core }: Routers,
  segments: ReadonlyMap<string, Segment>,
): void {
  const transit = segments.get('transit')?.subnet;
  const near = transit && gatewaysOf(draft.plan, transit.id)[0]?.address;
  if (!transit || !core || typeof near !== 'number') return;
  // A transit link is a /31 (RFC 3021): the other of its two addresses is the switch’s.
  const via = near ^ 1;
  const item = draft.under('segments', 'transit leg', () =>
    insertCard(draft, core, { kind: 'vlan', vlan: transit.vlan }),
  );
  draft.under('segments', 'transit address', () =>
    draft.insert('address', {
      subnet: transit.id,
      address: via >>> 0,
      interface: item.id,
      assignment: 'static',
      gateway: false,
      note: '',
    }),
  );
  draft.under('segments', 'way out', () =>
    draft.insert('route', { device: core, prefix: EVERYTHING, via: near, note: '' }),
  );
  for (const key of insideGroups(brief)) {
    const far = segments.get(key)?.subnet;
    if (!far) continue;
    draft.under('segments', `way to ${key}`, () =>
      draft.insert('route', { device: gateway, prefix: far.prefix, via: via >>> 0, note: '' }),
    );
  }
}
const EVERYTHING: Prefix = { address: 0, length: 0 };

/** Writes the segments of a brief with their subnets, gateways and pools. By key of their group. */
export function writeSegments(
  draft: KeyedDraft,
  brief: Brief,
  routers: Routers,
  boxes: number,
): { readonly segments: ReadonlyMap<string, Segment>; readonly decisions: readonly Decision[] } {
  const all = wantedOf(brief, boxes);
  const inside = insideGroups(brief);
  const used = new Set<string>();
  const vlans = new Map<Wanted, Vlan>();
  for (const wanted of all) {
    const vlan =
      standing(draft, wanted, used) ??
      writeVlan(draft, brief, wanted, vlansOf(draft.plan).at(-1)?.rank ?? null);
    used.add(vlan.id);
    vlans.set(wanted, vlan);
  }
  const segments = new Map<string, Segment>();
  const decisions: Decision[] = [];
  // The largest first, so that none is in the way of another.
  const bySize = all
    .filter(({ purpose }) => purpose !== 'parking')
    .sort((a, b) => lengthFor(brief, a) - lengthFor(brief, b));
  for (const wanted of bySize) {
    const vlan = vlans.get(wanted)!;
    const known = subnetOf(draft.plan, vlan.id, 4);
    const subnet =
      known && !draft.isProposed('subnet', known.id) ? known : writeSubnet(draft, brief, wanted, vlan);
    if (draft.isProposed('subnet', subnet.id)) {
      const router = inside.has(wanted.key) ? (routers.core ?? routers.gateway) : routers.gateway;
      const server = writeGateway(draft, brief, router, wanted, subnet);
      if (leasesFor(wanted) > 0) writePool(draft, brief, wanted, subnet, server);
    }
    decisions.push(reasonOf(brief, wanted, vlan, subnet));
  }
  for (const wanted of all) {
    const vlan = vlans.get(wanted)!;
    const subnet = subnetOf(draft.plan, vlan.id, 4) ?? null;
    segments.set(wanted.key, {
      key: wanted.key,
      vlan,
      subnet,
      addresses: subnet && new Addresses(draft, brief, subnet),
    });
  }
  writeTransit(draft, brief, routers, segments);
  return { segments, decisions };
}

function reasonOf(brief: Brief, wanted: Wanted, vlan: Vlan, subnet: Subnet): Decision {
  const { site } = brief;
  const later = grown(wanted.devices, wanted.growth);
  const why =
    wanted.purpose === 'management'
      ? 'only who looks after the boxes reaches them'
      : (purposeWhy[wanted.purpose] ?? 'they talk freely among themselves');
  return {
    what: `${vlan.name}, VLAN ${vlan.vid}, ${formatPrefix(subnet.prefix)}`,
    why: `${why}; ${wanted.devices} now, ${later} later, ${site.infrastructureBand} kept for boxes; ${usableHosts(subnet.prefix)} fit`,
  };
}
const purposeWhy: Partial<Record<Purpose, string>> = {
  guest: 'strangers’ devices reach the Internet and nothing inside',
  iot: 'things nobody updates are kept away from everything else',
  cameras: 'pictures of people stay inside',
  voice: 'speech is kept apart so that it can be preferred',
  servers: 'what everybody needs is reached through rules',
  'control-cell': 'a machine must not be moved by anything but its own cell',
  supervisory: 'operators reach the machines from here only',
  exchange: 'office and plant meet here and nowhere else',
  building: 'building services run on their own',
  transit: 'joins the layer-3 switch and the gateway',
};
