import {
  type Band,
  type Box,
  type Device,
  Draft,
  type Interface,
  type Need,
  type Plan,
  type Port,
  interfacesOf,
  rankBetween,
} from '../plan';
import { insertBox, insertCard } from '../edit';
import { hostNames, repairName } from '../model/hosts';
import { factoryBridge } from '../model/tree';
import {
  type Carried,
  type Model,
  access,
  adding,
  blankPort,
  carries,
  parked,
  portsOf,
  trunk,
  uplinkRole,
} from '../model/wiring';
import { proposeChannels, radiosOf } from '../model/wireless';
import { type Brief, insideGroups, placeOf } from './gather';
import { CORE, GATEWAY, type Hardware, type SwitchDesign, type Wanted, linePorts } from './hardware';
import type { KeyedDraft } from './keyed';
import type { Segment } from './segments';
import { type World, classOf, isListed, things } from './things';

/** Writes the boxes of a design with their ports, what is plugged into them, and what every port carries. */

/** Gives names that no device has, and to each the one it had. */
class Names {
  private readonly taken: Set<string>;
  private readonly patterns = new Map<string, Generator<string, never>>();

  constructor(private readonly draft: KeyedDraft) {
    this.taken = new Set([...draft.plan.device.values()].map(({ name }) => name.toLowerCase()));
  }

  private isFree(name: string): boolean {
    return !this.taken.has(name.toLowerCase());
  }

  private keep(name: string): string {
    this.taken.add(name.toLowerCase());
    return name;
  }

  /** A name for the device of a key: the one it had, else the first of these that is free. */
  give(key: string, names: Iterator<string, unknown>): string {
    const had = this.draft.was('device', key);
    if (had && (this.isFree(had.name) || this.draft.plan.device.get(had.id))) return this.keep(had.name);
    for (;;) {
      const name = names.next().value as string;
      if (this.isFree(name)) return this.keep(name);
    }
  }

  /** The names of a kind in a segment go on where the last one was taken. */
  byPattern(code: string, kind: Device['kind']): Generator<string, never> {
    const key = `${code} ${kind}`;
    let names = this.patterns.get(key);
    if (!names) this.patterns.set(key, (names = hostNames(this.draft.plan, code, kind)));
    return names;
  }
}

function* numbered(stem: string): Generator<string, never> {
  for (let n = 1; ; n++) yield `${stem}-${n}`;
}

/** Everything that was written for a design, by key. */
export interface Written {
  readonly devices: Map<string, Device>;
  /** By box and number. */
  readonly ports: Map<string, Map<number, Port>>;
}

const SHORT = { switch: 'sw', 'access-point': 'ap' } as const;

function writeBox(
  draft: KeyedDraft,
  written: Written,
  key: string,
  device: Device,
  model: Model,
  place: string,
): Box {
  const known = draft.plan.box.by('device', device.id)[0];
  const box =
    known && !draft.isProposed('box', known.id)
      ? known
      : draft.under('boxes', `box ${key}`, () => insertBox(draft, device, model, place));
  written.devices.set(key, device);
  written.ports.set(key, new Map(portsOf(draft.plan, device.id).map((port) => [port.number, port])));
  return box;
}

/** The address of a box in the segment from which boxes are looked after. */
function writeManagement(draft: KeyedDraft, key: string, device: Device, management: Segment): void {
  const item = draft.under('boxes', `card ${key}`, () => insertCard(draft, device.id));
  management.addresses?.write(`address ${key}`, item, 'infrastructure', 'static');
}

/** The segment of boxes: their own, or where there is but one, that. */
export const managementOf = (segments: ReadonlyMap<string, Segment>): Segment =>
  segments.get('management') ?? segments.get('all')!;

export interface NetworkInput {
  readonly draft: KeyedDraft;
  readonly brief: Brief;
  readonly hardware: Hardware;
  readonly segments: ReadonlyMap<string, Segment>;
  readonly gateway: Device;
  /** The layer-3 switch. */
  readonly core: Device | null;
}

/** The segment of a need. */
const segmentOf = ({ brief, segments }: NetworkInput, need: Parameters<typeof classOf>[0]): Segment =>
  segments.get(brief.groups.find(({ needs }) => needs.includes(need))!.key)!;

export function writeNetwork(input: NetworkInput): Written {
  const { draft, brief, hardware, segments, gateway } = input;
  const written: Written = { devices: new Map(), ports: new Map() };
  const names = new Names(draft);
  const management = managementOf(segments);
  writeBox(draft, written, GATEWAY, gateway, hardware.gateway.model, brief.places[0]!.name);
  if (input.core) writeBox(draft, written, CORE, input.core, hardware.core!, brief.places[0]!.name);
  const all = [
    ...hardware.switches.map((one) => ({ ...one, kind: 'switch' as const })),
    ...hardware.accessPoints.map((one) => ({ ...one, kind: 'access-point' as const })),
  ];
  for (const { key, model, place: at, kind } of all) {
    const stem = `${SHORT[kind]}-${(repairName(at.name) ?? 'place').slice(0, 40).replace(/-+$/, '')}`;
    const device = draft.under('boxes', key, () =>
      draft.insert('device', {
        name: names.give(key, numbered(stem)),
        kind: model.vlanAware || kind !== 'switch' ? kind : 'unmanaged-switch',
        firewall: 'unknown',
      }),
    );
    writeBox(draft, written, key, device, model, at.name);
    if (model.vlanAware) writeManagement(draft, key, device, management);
  }
  const cards = writeThings(input, written, names);
  writeAir(input, written, cards);
  writePorts(input, written);
  setStanding(draft, input, written);
  writeLinks(input, written);
  writeRoots(input, written);
  return written;
}

/** Every thing that is listed one by one: its card, its address, its socket and its cable. Returns the cards on the air. */
function writeThings(input: NetworkInput, written: Written, names: Names): Map<string, Interface[]> {
  const { draft, brief, hardware } = input;
  const onAir = new Map<string, Interface[]>();
  const sockets = new Map<string, { readonly box: string; readonly port: number }>();
  for (const { key, plugged } of hardware.switches)
    for (const [port, { for: who }] of plugged)
      if (who && 'need' in who) sockets.set(`${who.need.id} ${who.number}`, { box: key, port });
  const assignment = brief.site.fixed === 'reservation' ? 'reservation' : 'static';
  for (const need of brief.needs.filter(isListed)) {
    const segment = segmentOf(input, need);
    const { kind, fixed } = things[need.thing];
    for (let n = 1; n <= need.count; n++) {
      const key = `thing ${need.id} ${n}`;
      const name = names.give(key, names.byPattern(segment.vlan.code, kind));
      const device = draft.under('things', key, () =>
        draft.insert('device', { name, kind, firewall: 'unknown' }),
      );
      const card = draft.under('things', `card ${key}`, () => insertCard(draft, device.id));
      if (fixed)
        segment.addresses?.write(
          `address ${key}`,
          card,
          'fixed',
          assignment === 'reservation' && card.mac === null ? 'static' : assignment,
        );
      if (need.link === 'wireless') {
        onAir.set(segment.key, [...(onAir.get(segment.key) ?? []), card]);
        continue;
      }
      const at = sockets.get(`${need.id} ${n}`);
      if (!at) continue;
      const socket = draft.under('things', `socket ${key}`, () =>
        draft.insert('port', { ...blankPort, device: device.id, poeClass: classOf(need) }),
      );
      plug(draft, written, at, socket, `cable ${key}`);
    }
  }
  return onAir;
}

/** A cable between a port of a box and the socket of what is plugged into it. */
function plug(
  draft: KeyedDraft,
  written: Written,
  at: { readonly box: string; readonly port: number },
  socket: Port,
  key: string,
): void {
  draft.under('cables', key, () =>
    draft.insert('cable', {
      from: written.ports.get(at.box)!.get(at.port)!.id,
      fromSide: 'front',
      to: socket.id,
      toSide: 'front',
      media: 'copper',
      length: null,
      label: '',
    }),
  );
}

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
function writeAir(
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

/** The VLANs a switch needs of the network: those of what is plugged in, and its own. */
export function ownVlans(input: NetworkInput, design: SwitchDesign): Set<string> {
  const found = new Set([managementOf(input.segments).vlan.id]);
  for (const { for: who } of design.plugged.values()) {
    if (!who) continue;
    if ('need' in who) found.add(segmentOf(input, who.need).vlan.id);
    else for (const vlan of airVlans(input, who.accessPoint)) found.add(vlan);
  }
  return found;
}

/** The VLANs of the networks an access point sends. */
const airVlans = (input: NetworkInput, key: string): readonly string[] => [
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

const setCarried = (draft: KeyedDraft, port: Port | undefined, carried: Carried): void => {
  if (port && draft.isProposed('port', port.id)) draft.update('port', port.id, carried);
};

/** A box that stood there before: its free socket for a link is set, and its inside is in what it routes now. */
function setStanding(draft: KeyedDraft, { gateway }: NetworkInput, written: Written): void {
  const ports = written.ports.get(GATEWAY)!;
  const inside = ports.get(0);
  if (inside && !draft.isProposed('port', inside.id)) {
    const missing = interfacesOf(draft.plan, gateway.id)
      .flatMap(({ vlan }) => vlan ?? [])
      .filter((vlan) => !carries(inside, vlan));
    const carried = missing.reduce((port, vlan) => ({ ...port, ...adding(port, vlan) }), inside);
    if (missing.length > 0) draft.take('port', inside.id, carried);
  }
}

/** What every port carries: one segment, those of an access point, those needed beyond a link, or nothing. */
function writePorts(input: NetworkInput, written: Written): void {
  const { draft, brief, hardware } = input;
  const management = managementOf(input.segments).vlan.id;
  const flat = brief.choice.separation === 'flat';
  const idle = parked(draft.plan);
  const strangers = new Map(brief.places.map((one) => [one.id, one.strangers]));
  const needed = new Map(hardware.switches.map((one) => [one.key, ownVlans(input, one)]));
  for (const design of hardware.switches) {
    const ports = written.ports.get(design.key)!;
    for (const port of ports.values()) if (port.number > 0) setCarried(draft, port, idle);
    for (const [number, { for: who }] of design.plugged)
      if (who) setCarried(draft, ports.get(number), carriedFor(input, who, management, flat));
    for (const [number, { for: who }] of design.plugged)
      if (who && 'need' in who && strangers.get(placeOf(brief, who.need).id)) {
        const port = ports.get(number)!;
        if (draft.isProposed('port', port.id)) draft.update('port', port.id, { exposed: true });
      }
    setCarried(draft, ports.get(0), access(management));
  }
  for (const { key } of hardware.accessPoints) {
    const vlans = airVlans(input, key).filter((vlan) => vlan !== management);
    const ports = written.ports.get(key)!;
    const carried = vlans.length > 0 ? trunk(vlans, management) : access(management);
    for (const port of ports.values()) setCarried(draft, port, port.number > 1 ? idle : carried);
    const socket = ports.get(1)!;
    for (const design of hardware.switches)
      for (const [number, { for: who }] of design.plugged)
        if (who && 'accessPoint' in who && who.accessPoint === key)
          plug(draft, written, { box: design.key, port: number }, socket, `cable ${key}`);
  }
  const gateway = written.ports.get(GATEWAY)!;
  const lines = linePorts(hardware.gateway, brief.lines.length);
  for (const port of gateway.values()) {
    if (port.number === 0) continue;
    setCarried(draft, port, lines.includes(port.number) ? uplinkRole : idle);
  }
  for (const port of written.ports.get(CORE)?.values() ?? [])
    if (port.number > 0) setCarried(draft, port, idle);
  carryOverLinks(input, written, needed, flat, management);
}

function carriedFor(
  input: NetworkInput,
  who: NonNullable<Wanted['for']>,
  management: string,
  flat: boolean,
): Carried {
  if ('need' in who) return access(segmentOf(input, who.need).vlan.id);
  const vlans = airVlans(input, who.accessPoint).filter((vlan) => vlan !== management);
  return flat || vlans.length === 0 ? access(management) : trunk(vlans, management);
}

/** Each link carries what is needed beyond it, a ring everything that is needed anywhere. */
function carryOverLinks(
  input: NetworkInput,
  written: Written,
  needed: ReadonlyMap<string, ReadonlySet<string>>,
  flat: boolean,
  management: string,
): void {
  const { draft, hardware } = input;
  const below = new Map<string, Set<string>>();
  const gather = (box: string): Set<string> => {
    const known = below.get(box);
    if (known) return known;
    const all = new Set(needed.get(box) ?? []);
    below.set(box, all);
    for (const link of hardware.links)
      if (link.from.box === box && !link.ring) for (const vlan of gather(link.to.box)) all.add(vlan);
    return all;
  };
  const everywhere = (world: World) =>
    new Set(
      hardware.switches
        .filter((one) => one.world === world)
        .flatMap(({ key }) => [...(needed.get(key) ?? [])]),
    );
  const worldAt = new Map(hardware.switches.map(({ key, world }) => [key, world]));
  const inside = new Set([...insideGroups(input.brief)].map((key) => input.segments.get(key)!.vlan.id));
  const transit = input.segments.get('transit')?.vlan.id;
  const vlansOver = (link: (typeof hardware.links)[number]): Iterable<string> => {
    // What the layer-3 switch routes goes to the gateway over the transit link only.
    if (link.to.box === CORE)
      return [...[...everywhere('')].filter((vlan) => !inside.has(vlan)), ...(transit ? [transit] : [])];
    const whole = link.ring || link.from.box === GATEWAY || link.from.box === CORE;
    return whole ? everywhere(worldAt.get(link.to.box)!) : gather(link.to.box);
  };
  for (const link of hardware.links) {
    const vlans = vlansOver(link);
    const carried = flat ? access(management) : trunk([...vlans]);
    for (const end of [link.from, link.to]) {
      const port = written.ports.get(end.box)!.get(end.port)!;
      if (draft.isProposed('port', port.id)) draft.update('port', port.id, carried);
      // Nothing was plugged into it.
      else draft.take('port', port.id, { ...carried, enabled: true, profile: null });
    }
  }
}

function writeLinks({ draft, hardware }: NetworkInput, written: Written): void {
  for (const { key, from, to, media, metres } of hardware.links) {
    const [a, b] = [from, to].map(({ box, port }) => written.ports.get(box)!.get(port)!);
    // An optic of the slower end goes into both.
    const speed = Math.min(a!.speed, b!.speed);
    for (const port of [a!, b!])
      if (port.speed !== speed && draft.isProposed('port', port.id)) draft.update('port', port.id, { speed });
    draft.under('cables', key, () =>
      draft.insert('cable', {
        from: a!.id,
        fromSide: 'front',
        to: b!.id,
        toSide: 'front',
        media,
        length: metres,
        label: '',
      }),
    );
  }
}

/** The root of each tree stands at the main place, and where there is a way round, another takes over. */
function writeRoots({ draft, hardware }: NetworkInput, written: Written): void {
  const priorities = new Map(hardware.roots.map(({ key, priority }) => [key, priority]));
  const core = hardware.core ? [{ key: CORE, model: hardware.core }] : [];
  for (const { key, model } of [...core, ...hardware.switches]) {
    const priority = priorities.get(key);
    if (priority === undefined || model.spanningTree === 'none') continue;
    draft.under('cables', `root ${key}`, () =>
      draft.insert('bridge', {
        ...factoryBridge(model.spanningTree),
        device: written.devices.get(key)!.id,
        priority,
      }),
    );
  }
}
