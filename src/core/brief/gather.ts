import { formatPrefix, prefixFamily, sizeOf } from '../address';
import {
  type Line,
  type Need,
  type Place,
  type Plan,
  type Purpose,
  Refusal,
  type Site,
  inRank,
  type Stock,
  type Wish,
  siteOf,
} from '../plan';
import { serviceNames } from '../model/policy';
import { grown, purposeDefaults, usableSpace } from '../model/segments';
import { type World, things, worldOf } from './things';

/** What is read from a brief before anything is planned; what is missing has a default that is said. */

/** A school where practitioners differ, as the proposal takes it. */
export interface Choice {
  readonly separation: Site['separation'];
  readonly routedBy: Site['routedBy'];
  readonly backbone: Site['backbone'];
}

/** Things that go into one segment. */
export interface Group {
  /** Stays the same from one proposal to the next. */
  readonly key: string;
  readonly purpose: Purpose;
  /** Named by the brief; empty: as is usual for the purpose. */
  readonly name: string;
  readonly needs: readonly Need[];
  readonly devices: number;
  /** With what is to be added. */
  readonly grown: number;
  readonly world: World;
}

export interface Brief {
  readonly site: Site;
  readonly choice: Choice;
  /** The main place first. */
  readonly places: readonly Place[];
  readonly needs: readonly Need[];
  readonly lines: readonly Line[];
  readonly stock: readonly Stock[];
  readonly wishes: readonly Wish[];
  readonly groups: readonly Group[];
  /** What nobody said, and what is taken for it. */
  readonly assumed: readonly string[];
}

/** The place that stands for “where the lines end” while none is named. */
export const MAIN: Place = {
  id: 'main',
  rank: 'a0',
  name: 'Main place',
  sort: 'main',
  metres: 0,
  area: null,
  strangers: false,
};
/** As far as a place is taken to be while nobody measured. */
const FAR_AS = { 'same-building': 30, 'other-building': 150, main: 0 } as const;
export const metresTo = ({ sort, metres }: Place): number => metres ?? FAR_AS[sort];

const inOrder = <R extends { readonly rank: string; readonly id: string }>(records: Iterable<R>): R[] =>
  [...records].sort(inRank);

export const growthOf = (site: Site, need: Need): number => need.growth ?? site.usualGrowth;
export const grownNeed = (site: Site, need: Need): number => grown(need.count, growthOf(site, need));

/** Which group a need belongs to: by what it is for, and by name where it is to be apart. */
function keyOf(need: Need, { separation }: Choice): string {
  if (separation === 'flat') return 'all';
  const { purpose } = things[need.thing];
  return [purpose, need.apart.toLowerCase(), isSafety(need) ? 'safety' : ''].filter(Boolean).join(' ');
}
/** What a safety function hangs on shares a segment with nothing else. */
const isSafety = ({ thing }: Need): boolean => thing === 'safety-controller';

/** What a segment is called by its needs; empty: as is usual for its purpose. */
function nameFor(needs: readonly Need[], purpose: Purpose, taken: ReadonlySet<string>): string {
  const { apart } = needs[0]!;
  const name = isSafety(needs[0]!) ? `${apart} safety`.trim() : apart;
  const said = name.charAt(0).toUpperCase() + name.slice(1);
  return taken.has(said.toLowerCase()) ? `${said} ${purposeDefaults[purpose].label.toLowerCase()}` : said;
}

/** What needs go into one segment each, kept apart as is chosen. */
export function groupsOf(site: Site, needs: readonly Need[], choice: Choice): Group[] {
  const byKey = new Map<string, Need[]>();
  for (const need of needs) {
    const key = keyOf(need, choice);
    byKey.set(key, [...(byKey.get(key) ?? []), need]);
  }
  const taken = new Set<string>();
  return [...byKey].map(([key, members]) => {
    const flat = choice.separation === 'flat';
    const purpose = flat ? 'staff' : things[members[0]!.thing].purpose;
    const name = flat ? 'Everything' : nameFor(members, purpose, taken);
    if (name !== '') taken.add(name.toLowerCase());
    return {
      key,
      purpose,
      name,
      needs: members,
      devices: members.reduce((sum, need) => sum + need.count, 0),
      grown: members.reduce((sum, need) => sum + grownNeed(site, need), 0),
      world: choice.separation === 'separate' ? worldOf(purpose) : '',
    };
  });
}

/** A wish in words: guests to servers, HTTPS. */
export function wishText(plan: Plan, { from, to, decision, services }: Wish): string {
  const end = (name: Wish['from']) =>
    name === 'internet' ? 'the Internet' : name === 'remote' ? 'remote help' : purposeDefaults[name].label;
  const what = services.length === 0 ? '' : ` (${serviceNames(plan, services)})`;
  return `${end(from)} ${decision === 'allow' ? 'may' : 'may not'} reach ${end(to)}${what}`;
}

/**
 * Two wishes that cannot both be kept: the same ends and another decision on the same services, or on some of them where
 * neither is an exception to the other.
 */
function contradict(a: Wish, b: Wish): boolean {
  if (a.from !== b.from || a.to !== b.to || a.decision === b.decision) return false;
  const within = (x: Wish, y: Wish) =>
    y.services.length === 0 || (x.services.length > 0 && x.services.every((id) => y.services.includes(id)));
  const [inB, inA] = [within(a, b), within(b, a)];
  if (inA || inB) return inA && inB;
  return a.services.some((id) => b.services.includes(id));
}

function requireAgreement(plan: Plan, wishes: readonly Wish[]): void {
  for (const [i, a] of wishes.entries())
    for (const b of wishes.slice(i + 1))
      if (contradict(a, b))
        throw new Refusal(
          'bad-input',
          `Two wishes contradict each other: “${wishText(plan, a)}” and “${wishText(plan, b)}”. Change one of them.`,
          [
            { table: 'wish', id: a.id },
            { table: 'wish', id: b.id },
          ],
        );
}

/** Refuses a brief that needs more addresses than there are, and says how many, and what would fit. */
function requireRoom(site: Site, groups: readonly Group[]): void {
  const four = usableSpace(site).filter((block) => prefixFamily(block) === 4);
  const room = four.reduce((sum, block) => sum + sizeOf(block), 0);
  // Each subnet is a power of two; two more stand for the boxes and for what is parked.
  const sizes = groups.map((group) => subnetSize(site, group.grown));
  const wanted = sizes.reduce((sum, size) => sum + size, 0) + subnetSize(site, 8);
  if (wanted <= room) return;
  const length = 32 - Math.ceil(Math.log2(wanted));
  const fits = length >= 8 ? `a prefix of /${length}, like 10.0.0.0/${Math.max(8, length)}` : 'fewer devices';
  throw new Refusal(
    'no-room',
    `The brief needs ${wanted.toLocaleString('en')} addresses in ${groups.length + 1} subnets; ${four.map(formatPrefix).join(', ') || 'the address space'} holds ${room.toLocaleString('en')}. What would fit: ${fits}.`,
    [{ table: 'site', id: site.id }],
    ['space'],
  );
}
const subnetSize = (site: Site, hosts: number): number => {
  const least = 2 ** Math.ceil(Math.log2(hosts + site.infrastructureBand + 1 + 2));
  return Math.max(8, site.sizing === 'slash-24' ? Math.max(256, least) : least);
};

/** What the brief of a plan says. Throws a Refusal where nothing can be planned from it. */
export function gather(plan: Plan, choice?: Partial<Choice>): Brief {
  const site = siteOf(plan);
  const chosen: Choice = {
    separation: choice?.separation ?? site.separation,
    routedBy: choice?.routedBy ?? site.routedBy,
    backbone: choice?.backbone ?? site.backbone,
  };
  const needs = inOrder(plan.need.values()).filter(({ count }) => count > 0);
  if (needs.length === 0)
    throw new Refusal(
      'bad-input',
      'The brief names nothing that has to be connected; write at least one need, like 12 workstations.',
    );
  const listed = inOrder(plan.place.values());
  const main = listed.find(({ sort }) => sort === 'main');
  const places = [main ?? MAIN, ...listed.filter((place) => place !== main)];
  const wishes = inOrder(plan.wish.values());
  requireAgreement(plan, wishes);
  const groups = groupsOf(site, needs, chosen);
  requireRoom(site, groups);
  const lines = inOrder(plan.line.values());
  return {
    site,
    choice: chosen,
    places,
    needs,
    lines,
    stock: inOrder(plan.stock.values()),
    wishes,
    groups,
    assumed: assumedIn(site, places, needs, lines, main !== undefined),
  };
}

function assumedIn(
  site: Site,
  places: readonly Place[],
  needs: readonly Need[],
  lines: readonly Line[],
  hasMain: boolean,
): string[] {
  const said: string[] = [];
  if (!hasMain)
    said.push('No main place is named: the gateway and the first switch stand where the lines end.');
  for (const place of places)
    if (place.metres === null && place.sort !== 'main')
      said.push(`Nobody measured the way to ${place.name}: ${metresTo(place)} m of cable are assumed.`);
  const usual = needs.filter(({ growth }) => growth === null).length;
  if (usual > 0 && site.usualGrowth > 0)
    said.push(
      `${usual === needs.length ? 'No need' : `${usual} of ${needs.length} needs`} ${usual === needs.length ? 'says' : 'do not say'} how much it grows: ${site.usualGrowth} % more is planned for.`,
    );
  if (site.fixed === 'reservation' && needs.some(({ thing }) => things[thing].fixed))
    said.push(
      'No MAC addresses are known yet: fixed addresses are set on the devices, and reserved once their MACs are written down.',
    );
  if (lines.length === 0) said.push('No Internet connection is named: nothing here reaches the Internet.');
  const air = needs.filter(({ link }) => link === 'wireless');
  for (const place of places)
    if (place.area === null && air.some((need) => (need.place ?? places[0]!.id) === place.id))
      said.push(
        `Nobody said how large ${place.name} is: access points there are counted by their clients alone.`,
      );
  return said;
}

/** Devices that are worth a second cable to the gateway. */
const WORTH_A_BUNDLE = 60;
/** How many share the way to the gateway, and whether that is worth two cables. */
export const crowdOf = ({ needs, site }: Pick<Brief, 'needs' | 'site'>): number =>
  needs.reduce((sum, need) => sum + grownNeed(site, need), 0);
export const isCrowded = (brief: Pick<Brief, 'needs' | 'site' | 'choice'>): boolean =>
  brief.choice.separation === 'vlans' && crowdOf(brief) >= WORTH_A_BUNDLE;

export const isFlat = ({ choice }: Pick<Brief, 'choice'>): boolean => choice.separation === 'flat';

const INSIDE: ReadonlySet<Purpose> = new Set(['staff', 'voice', 'servers']);
/**
 * The groups a layer-3 switch routes between, by key: those that may talk freely, as it filters nothing. None where the gateway
 * routes, or where there are not two of them.
 */
export function insideGroups({ choice, groups }: Pick<Brief, 'choice' | 'groups'>): ReadonlySet<string> {
  if (choice.routedBy !== 'layer3-switch' || choice.separation !== 'vlans') return new Set();
  const inside = groups.filter(({ purpose, name }) => INSIDE.has(purpose) && name === '');
  return new Set(inside.length < 2 ? [] : inside.map(({ key }) => key));
}

/**
 * The groups an end of a wish means. What may not be done, no group of the purpose may; what may be done is meant for those that are
 * not groups of their own, where there are any: who is named apart is let in nowhere by what is said of the others.
 */
export function meantGroups(
  { groups }: Pick<Brief, 'groups'>,
  end: Wish['from'],
  decision: Wish['decision'],
): readonly Group[] {
  const all = groups.filter(({ purpose }) => purpose === end);
  const common = all.filter(({ name }) => name === '');
  return decision === 'allow' && common.length > 0 ? common : all;
}

/** The place of a need. */
export const placeOf = ({ places }: Brief, need: Need): Place =>
  places.find(({ id }) => id === need.place) ?? places[0]!;
