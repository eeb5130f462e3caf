import { type Party, type Plan, type Question, type Vlan, type Wish, rankBetween, vlansOf } from '../plan';
import { type Start, insertRule, insertZone, starts, writeStart } from '../edit';
import { type Wanted, includesService, isOutside, serviceOf, zoneOfVlan, zonesOf } from '../model/policy';
import { questionFields } from '../rehearse';
import { type Brief, insideGroups, meantGroups, wishText } from './gather';
import type { Decision } from './design';
import type { KeyedDraft } from './keyed';
import { type Unmet, writeRemote } from './lines';
import type { Segment } from './segments';

/** Zones, what passes between them, the wishes above that, and the questions that ask for all of it. */

const vlansFor = (plan: Plan, end: Wish['from']): readonly Vlan[] =>
  vlansOf(plan).filter(({ purpose }) => purpose === end);

/** The segments an end of a wish means. */
function meant(
  { plan, brief, segments }: Asked,
  end: Wish['from'],
  decision: Wish['decision'],
): readonly Vlan[] {
  const all = vlansFor(plan, end);
  if (decision === 'deny') return all;
  const own = new Set(meantGroups(brief, end, decision).map(({ key }) => segments.get(key)!.vlan.id));
  return own.size === 0 ? all : all.filter(({ id }) => own.has(id));
}
interface Asked {
  readonly plan: Plan;
  readonly brief: Brief;
  readonly segments: ReadonlyMap<string, Segment>;
}

/** What a question asks for to see whether a wish is kept: nothing that a narrower wish decides otherwise. */
function askedFor(plan: Plan, brief: Brief, wish: Wish): Wanted | null {
  const first = wish.services.flatMap((id) => serviceOf(plan, id)?.matches ?? []);
  const candidates: Wanted[] =
    wish.services.length > 0
      ? first.flatMap(({ protocol, from }) => (protocol === 'ip' ? [] : [{ protocol, port: from }]))
      : [
          { protocol: 'tcp', port: 443 },
          { protocol: 'icmp', port: 8 },
          { protocol: 'tcp', port: 22 },
          { protocol: 'udp', port: 40_000 },
        ];
  const narrower = brief.wishes.filter(
    (other) =>
      other !== wish &&
      other.from === wish.from &&
      other.to === wish.to &&
      other.services.length > 0 &&
      (wish.services.length === 0 || other.services.length < wish.services.length),
  );
  return (
    candidates.find((wanted) => !narrower.some(({ services }) => includesService(plan, services, wanted))) ??
    null
  );
}

const ROUTED_INSIDE: ReadonlySet<string> = new Set(['staff', 'voice', 'servers']);

/** A starting point in which those that a layer-3 switch routes between are one zone. */
function withOneInside(start: Start): Start {
  const isInside = ({ purposes }: Start['zones'][number]) =>
    purposes.every((purpose) => ROUTED_INSIDE.has(purpose));
  const merged = start.zones.filter(isInside);
  const name = merged.length === 1 ? merged[0]!.name : 'Inside';
  const nameOf = (zone: string) => (merged.some((one) => one.name === zone) ? name : zone);
  const cells = start.cells
    .map((cell) => ({ ...cell, from: nameOf(cell.from), to: nameOf(cell.to) }))
    .filter(({ from, to }) => from !== to);
  return {
    ...start,
    about: `Staff, servers and telephones are routed by the layer-3 switch and are one zone. ${start.about}`,
    zones: [
      {
        name,
        purposes: [...merged.flatMap(({ purposes }) => purposes), 'transit'],
        ...(merged.some(({ manages }) => manages) ? { manages: true as const } : {}),
      },
      ...start.zones.filter((zone) => !isInside(zone)),
    ],
    cells: cells.filter(
      (cell, i) => cells.findIndex(({ from, to }) => from === cell.from && to === cell.to) === i,
    ),
  };
}

/** Which wishes can be kept at all, and why not. */
function hindrance(brief: Brief, plan: Plan, wish: Wish, remote: string | Unmet | null): string | null {
  const { from, to } = wish;
  if (from === 'internet' && wish.decision === 'allow')
    return 'what the Internet may open is let in device by device, under Internet side';
  if (from === 'internet' || to === 'remote')
    return wish.decision === 'deny' ? null : 'remote help asks, it is not asked';
  if (from === 'remote') {
    if (typeof remote !== 'string')
      return wish.decision === 'deny' ? null : (remote?.why ?? 'there is no way in');
    if (to === 'internet') return 'who dials in uses a connection of their own for the Internet';
  }
  const needsSegment = [from, to].filter((end) => end !== 'internet' && end !== 'remote');
  const missing = needsSegment.find((end) => vlansFor(plan, end).length === 0);
  if (missing) {
    if (brief.choice.separation === 'flat')
      return wish.decision === 'allow' ? null : 'in one network nothing stands between them';
    return `nothing in the brief is for ${missing}`;
  }
  if (from === to)
    return wish.decision === 'allow' ? null : 'within one segment nothing stands between two devices';
  if (
    insideGroups(brief).size > 0 &&
    wish.decision === 'deny' &&
    ROUTED_INSIDE.has(from) &&
    ROUTED_INSIDE.has(to)
  )
    return 'the layer-3 switch routes between them and filters nothing';
  if (to === 'internet' && brief.lines.length === 0 && wish.decision === 'allow')
    return 'no Internet connection is named';
  return null;
}

/** Narrower wishes stand before wider ones, so that an exception counts. */
const bySpecificity = (a: Wish, b: Wish): number =>
  Number(a.services.length === 0) - Number(b.services.length === 0) || a.services.length - b.services.length;

export function writePolicy(
  draft: KeyedDraft,
  brief: Brief,
  gateway: string,
  segments: ReadonlyMap<string, Segment>,
): { readonly decisions: readonly Decision[]; readonly unmet: readonly Unmet[] } {
  const inside = insideGroups(brief);
  const unmet: Unmet[] = [];
  const decisions: Decision[] = [];
  const wantsHelp = brief.wishes.some(({ from, decision }) => from === 'remote' && decision === 'allow');
  const remote = wantsHelp ? writeRemote(draft, brief, gateway) : null;
  const foreign = zonesOf(draft.plan).some(({ id }) => !draft.isProposed('zone', id));
  if (foreign) {
    decisions.push({ what: 'The zones stay as they are', why: 'somebody has decided them already' });
    for (const { id, name } of vlansOf(draft.plan))
      if (draft.isProposed('vlan', id) && !zoneOfVlan(draft.plan, id))
        draft.under('policy', `zone ${id}`, () =>
          insertZone(draft, { name: name.slice(0, 40), vlans: [id] }),
        );
  } else {
    const usual = starts.find(({ kind }) => kind === brief.site.kind)!;
    const start = inside.size > 0 ? withOneInside(usual) : usual;
    // Who is a group of their own by the brief is one here too.
    const named = brief.groups.filter(({ name, key }) => name !== '' && key !== 'all');
    const alone = new Set(named.map(({ key }) => segments.get(key)!.vlan.id));
    writeStart(draft, start, (key, work) => draft.under('policy', key, work), alone);
    decisions.push({ what: `Zones as in ${start.name}`, why: start.about });
  }
  const kept: Wish[] = [];
  let rank: string | null = null;
  for (const wish of [...brief.wishes].sort(bySpecificity)) {
    const why = hindrance(brief, draft.plan, wish, remote);
    if (why !== null) {
      unmet.push({ what: wishText(draft.plan, wish), why });
      continue;
    }
    kept.push(wish);
    const parties = partiesOf({ plan: draft.plan, brief, segments }, wish, remote);
    if (!parties) continue;
    rank = rankBetween(rank, null);
    draft.under('policy', `wish ${wish.id}`, () =>
      insertRule(draft, {
        rank: rank!,
        ...parties,
        services: [...wish.services],
        action: wish.decision,
        note: (wish.why || wishText(draft.plan, wish)).slice(0, 120),
      }),
    );
  }
  writeQuestions(draft, brief, segments, kept, remote);
  return { decisions, unmet };
}

/** Whom a rule for a wish speaks of; null where none is needed, or nobody is meant. */
function partiesOf(
  asked: Asked,
  { from, to, decision, services }: Wish,
  remote: string | Unmet | null,
): { readonly from: Party[]; readonly to: Party[] } | null {
  const { plan } = asked;
  // Of the whole Internet a segment says itself whether it reaches it; one that stood there before may say otherwise.
  const bySegment = to === 'internet' && services.length === 0;
  const isAsSaid = ({ internet }: Vlan) => bySegment && internet === (decision === 'allow');
  const side = (end: Wish['from']): Party[] => {
    if (end === 'internet')
      return zonesOf(plan)
        .filter(isOutside)
        .map(({ id }) => ({ zone: id }));
    if (end === 'remote')
      return zonesOf(plan)
        .filter(({ tunnels }) => typeof remote === 'string' && tunnels.includes(remote))
        .map(({ id }) => ({ zone: id }));
    return meant(asked, end, decision)
      .filter((vlan) => !isAsSaid(vlan))
      .map(({ id }) => ({ vlan: id }));
  };
  const parties = { from: side(from), to: side(to) };
  return parties.from.length === 0 || parties.to.length === 0 ? null : parties;
}

interface Kept {
  readonly key: string;
  readonly question: Omit<Question, 'id' | 'rank'>;
}

const HTTPS: Wanted = { protocol: 'tcp', port: 443 };

/** A question for every wish that is kept, and those that everybody asks. */
function writeQuestions(
  draft: KeyedDraft,
  brief: Brief,
  segments: ReadonlyMap<string, Segment>,
  wishes: readonly Wish[],
  remote: string | Unmet | null,
): void {
  const { plan } = draft;
  const kept: Kept[] = [];
  const add = (
    key: string,
    ...[asked, expected, why]: [Parameters<typeof questionFields>[0], boolean, string]
  ) =>
    kept.push({
      key,
      question: {
        ...questionFields(asked),
        expected: expected ? 'delivered' : 'stopped',
        why: why.slice(0, 200),
      },
    });
  const withSubnet = (vlan: Vlan) => plan.subnet.by('vlan', vlan.id).length > 0;
  for (const wish of wishes) {
    const wanted = askedFor(plan, brief, wish);
    const [from, to] = [wish.from, wish.to].map((end) =>
      meant({ plan, brief, segments }, end, wish.decision).find(withSubnet),
    );
    const source =
      wish.from === 'remote'
        ? typeof remote === 'string'
          ? { tunnel: remote }
          : null
        : wish.from === 'internet'
          ? { internet: true as const }
          : from && { vlan: from.id };
    const target = wish.to === 'internet' ? { internet: true as const } : to && { vlan: to.id };
    if (!wanted || !source || !target || (from && from === to)) continue;
    add(
      `wish ${wish.id}`,
      { from: source, to: target, wanted },
      wish.decision === 'allow',
      wish.why || wishText(plan, wish),
    );
  }
  const decided = new Set(wishes.map(({ from, to }) => `${from} ${to}`));
  const all = vlansOf(plan).filter(
    (vlan) => vlan.purpose !== 'transit' && withSubnet(vlan) && draft.isProposed('vlan', vlan.id),
  );
  for (const vlan of all) {
    if (decided.has(`${vlan.purpose} internet`)) continue;
    const online = vlan.internet && brief.lines.length > 0;
    add(
      `online ${vlan.id}`,
      { from: { vlan: vlan.id }, to: { internet: true }, wanted: HTTPS },
      online,
      online ? `${vlan.name} reaches the Internet` : `${vlan.name} stays off the Internet`,
    );
  }
  const guests = all.filter(({ purpose }) => purpose === 'guest');
  for (const guest of guests)
    for (const other of all.filter(({ purpose }) => purpose !== 'guest'))
      if (!decided.has(`guest ${other.purpose}`))
        add(
          `apart ${guest.id} ${other.id}`,
          { from: { vlan: guest.id }, to: { vlan: other.id }, wanted: HTTPS },
          false,
          `${guest.name} stay out of ${other.name}`,
        );
  let rank: string | null = null;
  for (const { key, question } of kept) {
    rank = rankBetween(rank, null);
    const at = rank;
    draft.under('questions', `question ${key}`, () => draft.insert('question', { ...question, rank: at }));
  }
}
