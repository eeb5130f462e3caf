import { type Band, Draft, type Interface, type Need, type Plan, rankBetween } from '../plan';
import { repairName } from '../model/hosts';
import { proposeChannels, radiosOf } from '../model/wireless';
import { placeOf } from './gather';
import type { KeyedDraft } from './keyed';
import type { NetworkInput, Written } from './network';
import type { Segment } from './segments';
import { type World, things } from './things';

/** The air of a proposal: networks, on which access points, on which channels. */

interface Network {
  readonly segment: Segment;
  readonly world: World;
}

/** Who is on the air: the groups that have something without a cable. */
const networksOf = ({ brief, segments }: NetworkInput): Network[] =>
  brief.groups
    .filter(({ needs }) => needs.some(isOnAir))
    .map(({ key, world }) => ({ segment: segments.get(key)!, world }));

/** Where a network is sent: everywhere where people carry its devices about, else where they are. */
function accessPointsOf({ brief, hardware }: NetworkInput, { key }: Segment, world: World) {
  const needs = brief.groups.find((group) => group.key === key)!.needs.filter(isOnAir);
  const roams = needs.some(({ thing }) => things[thing].carried);
  const there = new Set(needs.map((need) => placeOf(brief, need)));
  return hardware.accessPoints.filter((point) => point.world === world && (roams || there.has(point.place)));
}
const isOnAir = ({ link }: Need): boolean => link === 'wireless';

/** What a network is called on the air: neither who made the box nor where it stands. */
const AIR_NAMES = { staff: 'work', guest: 'guest', iot: 'things', voice: 'voice' } as const;
const BANDS: readonly Band[] = ['2.4', '5'];

/** Radios that stood there before stay on their channels. */
function withOthersKept(draft: KeyedDraft): Plan {
  const trial = new Draft(draft.plan, '');
  for (const radio of draft.plan.radio.values())
    if (!draft.isProposed('radio', radio.id) && radio.channel !== null)
      trial.update('radio', radio.id, { kept: true });
  return trial.plan;
}

/** Good channels are enough for a proposal; the best ones are looked for under Wireless. */
const QUICK = { steps: 500, rounds: 200 };

/** Wireless networks, radios and channels, and the cards that join them. */
export function writeAir(
  input: NetworkInput,
  written: Written,
  cards: ReadonlyMap<string, readonly Interface[]>,
): void {
  const { draft, brief, hardware } = input;
  const taken = new Set([...draft.plan.ssid.values()].map(({ name }) => name));
  let rank: string | null = null;
  for (const { segment, world } of networksOf(input)) {
    const { purpose, name, id } = segment.vlan;
    const key = `ssid ${segment.key}`;
    const stem =
      (AIR_NAMES as Partial<Record<string, string>>)[purpose] ?? (repairName(name) ?? 'net').slice(0, 24);
    const had = draft.was('ssid', key)?.name;
    const free = [stem, ...Array.from({ length: 99 }, (_, i) => `${stem}-${i + 2}`)].find(
      (one) => !taken.has(one),
    )!;
    const own = draft.plan.ssid.get(draft.idOf(key));
    const called = had !== undefined && (!taken.has(had) || own) ? had : free;
    taken.add(called);
    rank = rankBetween(rank, null);
    const points = accessPointsOf(input, segment, world);
    const ssid = draft.under('wireless', key, () =>
      draft.insert('ssid', {
        name: called,
        vlan: id,
        security: 'wpa2-wpa3-personal',
        bands: [...BANDS],
        isolated: purpose === 'guest',
        portal: false,
        hidden: false,
        schedule: '',
        minimumRate: '12',
        cannotWait: brief.groups
          .find((group) => group.key === segment.key)!
          .needs.some(({ thing }) => thing === 'scanner' || thing === 'telephone'),
        keySet: null,
        keyKept: '',
        // On all where there are no others.
        on:
          points.length === hardware.accessPoints.length
            ? []
            : points.map(({ key: point }) => written.devices.get(point)!.id).sort(),
        rank: rank!,
      }),
    );
    for (const card of cards.get(segment.key) ?? []) draft.update('interface', card.id, { joins: ssid.id });
  }
  for (const { key } of hardware.accessPoints) {
    const device = written.devices.get(key)!;
    const own = radiosOf(draft.plan, device.id).filter(({ id }) => !draft.isProposed('radio', id));
    const missing = BANDS.filter((band) => !own.some((radio) => radio.band === band));
    for (const band of missing) {
      const had = draft.was('radio', `radio ${band} ${key}`);
      draft.under('wireless', `radio ${band} ${key}`, () =>
        draft.insert('radio', {
          device: device.id,
          band,
          enabled: true,
          channel: had?.channel ?? null,
          width: had?.width ?? (band === '2.4' ? '20' : '40'),
          power: null,
          interval: 100,
          kept: false,
        }),
      );
    }
  }
  if (hardware.accessPoints.length > 0)
    for (const { settings } of proposeChannels(
      withOthersKept(draft),
      { band: null, widths: true, powers: false },
      QUICK,
    ))
      for (const { radio, channel, width } of settings)
        if (draft.isProposed('radio', radio)) draft.update('radio', radio, { channel, width });
}

/** The VLANs of the networks an access point sends. */
export const airVlans = (input: NetworkInput, key: string): readonly string[] => [
  ...new Set([
    ...networksOf(input)
      .filter(({ segment, world }) =>
        accessPointsOf(input, segment, world).some((point) => point.key === key),
      )
      .map(({ segment }) => segment.vlan.id),
    ...standingNetworks(input),
  ]),
];

/** The segments of networks that stood there before and are sent by every access point. */
const standingNetworks = ({ draft }: NetworkInput): string[] =>
  [...draft.plan.ssid.values()]
    .filter(({ id, on }) => on.length === 0 && !draft.isProposed('ssid', id))
    .flatMap(({ vlan }) => vlan ?? []);
