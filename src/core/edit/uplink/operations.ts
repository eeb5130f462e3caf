import * as z from 'zod';
import { uplinkRole as facingProvider, portsOf } from '../../model/wiring';
import {
  type Draft,
  protocols,
  kinds,
  type Device,
  type Forward,
  type Port,
  type Uplink,
  operation,
  type Plan,
  Refusal,
  badInput,
  routersOf,
  removeRecord,
  requireOwnName,
  notForwarded,
  portTitle,
  portsText,
} from '../../plan';
import { protocolsMeet, knownServiceAt, forwardsOf, targetOf, uplinksOf } from '../../model/uplink';

const one = z.strictObject({ uplink: z.string() });

/** The port a new uplink is likely to be on: the first that faces a provider and has no uplink yet. */
export function freeUplinkPort(plan: Plan, device: string): Port | undefined {
  const used = new Set([...plan.uplink.values()].map(({ port }) => port));
  return portsOf(plan, device).find((port) => port.role === 'uplink' && !used.has(port.id));
}

/** The gateway a new uplink is likely to belong to: one with a port that waits for it, else the first. */
export function likelyGateway(plan: Plan): Device | undefined {
  const gateways = routersOf(plan).filter(({ kind }) => kind === 'gateway');
  return gateways.find(({ id }) => freeUplinkPort(plan, id)) ?? gateways[0];
}

/** What an uplink is like before anybody said more: by DHCP from a modem, nothing known of the address. */
export const plainUplink: Omit<Uplink, 'id' | 'device' | 'port' | 'name' | 'tier'> = {
  addressing: 'dhcp',
  providerVlan: null,
  upstream: 'modem',
  passes: 'nothing',
  outside: 'unknown',
  address: null,
  network: null,
  mtu: null,
  down: null,
  up: null,
  cap: null,
  noForwards: false,
  enabled: true,
  delegated: null,
  weight: 1,
  monitor: null,
  monitorEvery: 10,
  lossesDown: 3,
  repliesUp: 6,
  dynamicName: '',
  updater: null,
  segment: null,
};

/** Ports that lead to other boxes keep what they carry until their cable is moved. */
function face(draft: Draft, port: Port): void {
  if (port.role === 'uplink') return;
  draft.update('port', port.id, { ...facingProvider, profile: null });
}

export const addUplink = operation(
  'addUplink',
  z.strictObject({
    device: z.string().optional(),
    port: z.string().nullable().optional(),
    name: z.string().trim().optional(),
  }),
  (draft, { device: wanted, port: asked, name: typed }) => {
    const gateway = wanted === undefined ? likelyGateway(draft.plan) : draft.need('device', wanted);
    if (!gateway)
      throw badInput('There is no gateway for an uplink; add one under Gear & ports first.', 'device');
    const known = uplinksOf(draft.plan);
    const port =
      asked === undefined
        ? freeUplinkPort(draft.plan, gateway.id)
        : asked === null
          ? undefined
          : draft.need('port', asked);
    if (port) face(draft, port);
    const names = new Set(known.map(({ name }) => name.toLowerCase()));
    if (typed) requireOwnName(draft.plan, 'uplink', typed);
    let name = typed || 'Internet';
    for (let n = 2; !typed && names.has(name.toLowerCase()); n++) name = `Internet ${n}`;
    const tier = Math.min(9, Math.max(0, ...known.map((uplink) => uplink.tier)) + 1);
    draft.insert('uplink', { ...plainUplink, device: gateway.id, port: port?.id ?? null, name, tier });
    return `Uplink ${name} at ${port ? portTitle(draft.plan, port) : gateway.name}`;
  },
);

export const removeUplink = operation('removeUplink', one, (draft, input) => {
  const uplink = draft.need('uplink', input.uplink);
  const forwards = forwardsOf(draft.plan, uplink.id);
  removeRecord(draft, { table: 'uplink', id: uplink.id });
  const lost =
    forwards.length === 0 ? '' : ` with ${forwards.length} forward${forwards.length === 1 ? '' : 's'}`;
  return `Uplink ${uplink.name} removed${lost}`;
});

export const setUplinkPort = operation(
  'setUplinkPort',
  z.strictObject({ uplink: z.string(), port: z.string().nullable() }),
  (draft, { uplink: id, port: wanted }) => {
    const uplink = draft.need('uplink', id);
    if (wanted === null) {
      draft.update('uplink', id, { port: null });
      return `${uplink.name}: no port recorded`;
    }
    const port = draft.need('port', wanted);
    if (port.device !== uplink.device)
      throw badInput(
        `${portTitle(draft.plan, port)} is no port of ${draft.need('device', uplink.device).name}; choose one of its own.`,
        'port',
      );
    face(draft, port);
    draft.update('uplink', id, { port: port.id });
    return `${uplink.name}: at ${portTitle(draft.plan, port)}`;
  },
);

/** Names the one device that keeps the dynamic name up to date. */
export const setUpdater = operation(
  'setUpdater',
  z.strictObject({ uplink: z.string(), updater: z.string().nullable() }),
  (draft, { uplink: id, updater }) => {
    const uplink = draft.need('uplink', id);
    const by = updater === null ? 'nobody' : draft.need('device', updater).name;
    draft.update('uplink', id, { updater });
    return `${uplink.dynamicName || uplink.name}: kept up to date by ${by}`;
  },
);

/** Ends double NAT: the box upstream no longer routes, or it passes everything on to this gateway. */
export const endDoubleNat = operation(
  'endDoubleNat',
  z.strictObject({ uplink: z.string(), how: z.enum(['bridge', 'expose']) }),
  (draft, { uplink: id, how }) => {
    const uplink = draft.need('uplink', id);
    if (how === 'expose') {
      draft.update('uplink', id, { passes: 'everything' });
      return `${uplink.name}: the box upstream passes everything on to ${draft.need('device', uplink.device).name}`;
    }
    draft.update('uplink', id, {
      upstream: 'bridged',
      passes: 'nothing',
      outside: 'public',
      address: null,
      network: null,
    });
    return `${uplink.name}: the box upstream is bridged`;
  },
);

const overlaps = (
  a: Pick<Forward, 'protocol' | 'from' | 'to'>,
  b: Pick<Forward, 'protocol' | 'from' | 'to'>,
): boolean => protocolsMeet(a.protocol, b.protocol) && a.from <= b.to && b.from <= a.to;

/** The forwards in use on an uplink that take one of these outside ports. */
export const takenBy = (
  plan: Plan,
  uplink: string,
  wish: Pick<Forward, 'protocol' | 'from' | 'to'>,
  but?: string,
): Forward[] =>
  forwardsOf(plan, uplink).filter((other) => other.enabled && other.id !== but && overlaps(other, wish));

const REGISTERED = 1024;
const LAST = 65_535;
/**
 * The outside ports nearest to a wish that nothing on the uplink has: the wish itself, then upwards, then from the first
 * port above the well-known ones. Null when all are taken.
 */
export function freeOutside(
  plan: Plan,
  uplink: string,
  protocol: Forward['protocol'],
  wish: number,
  count = 1,
  but?: string,
): number | null {
  const fits = (from: number) =>
    from + count - 1 <= LAST &&
    takenBy(plan, uplink, { protocol, from, to: from + count - 1 }, but).length === 0;
  if (fits(wish)) return wish;
  // Beside a taken well-known port the neighbour means something else; a registered one is taken instead.
  const start = Math.max(wish < REGISTERED ? wish + 8000 : wish, REGISTERED);
  for (let from = start; from <= LAST; from++) if (fits(from)) return from;
  for (let from = REGISTERED; from < start; from++) if (fits(from)) return from;
  return null;
}

const placeFor = (...input: Parameters<typeof freeOutside>): number => {
  const found = freeOutside(...input);
  if (found === null)
    throw new Refusal('no-room', 'All outside ports of this uplink are taken.', [], ['from']);
  return found;
};

export const addForward = operation(
  'addForward',
  z.strictObject({
    uplink: z.string(),
    protocol: z.enum(protocols).default('tcp'),
    target: z.string(),
    inside: kinds.forward.fields.inside,
    /** Left out: the inside port, or the next free one. */
    from: kinds.forward.fields.from.optional(),
    count: z.number().int().min(1).max(1000).default(1),
    sources: kinds.forward.fields.sources.default([]),
    note: kinds.forward.fields.note.default(''),
  }),
  (draft, { uplink: id, protocol, target, inside, from: typed, count, sources, note }) => {
    const uplink = draft.need('uplink', id);
    const item = draft.need('interface', target);
    const refused = notForwarded(sources);
    if (refused !== null) throw badInput(refused, 'sources');
    const from = typed ?? placeFor(draft.plan, id, protocol, inside, count);
    const to = from + count - 1;
    const [other] = takenBy(draft.plan, id, { protocol, from, to });
    if (other)
      throw badInput(
        `${portsText(protocol, from, to)} on ${uplink.name} leads to ${targetOf(draft.plan, other).name} already; ${portsText(protocol, placeFor(draft.plan, id, protocol, from, count))} is free.`,
        'from',
      );
    draft.insert('forward', {
      uplink: id,
      protocol,
      from,
      to,
      target,
      inside,
      sources,
      hairpin: true,
      enabled: true,
      note,
    });
    return `${uplink.name}: ${portsText(protocol, from, to)} to ${draft.need('device', item.device).name} ${inside}`;
  },
);

const ofForward = z.strictObject({ forward: z.string() });

export const removeForward = operation('removeForward', ofForward, (draft, input) => {
  const forward = draft.need('forward', input.forward);
  draft.remove('forward', forward.id);
  return `Forward ${portsText(forward.protocol, forward.from, forward.to)} removed`;
});

/** Gives a forward free outside ports near those it has. */
export const renumberForward = operation('renumberForward', ofForward, (draft, input) => {
  const forward = draft.need('forward', input.forward);
  const { uplink, protocol, from, to, id } = forward;
  const next = placeFor(draft.plan, uplink, protocol, from, to - from + 1, id);
  draft.update('forward', id, { from: next, to: next + (to - from) });
  return `Forward ${portsText(protocol, from, to)}: outside port ${next}`;
});

/** Lets a forward in on another uplink, at a free outside port. */
export const moveForward = operation(
  'moveForward',
  z.strictObject({ forward: z.string(), uplink: z.string() }),
  (draft, input) => {
    const { protocol, from, to, id } = draft.need('forward', input.forward);
    const uplink = draft.need('uplink', input.uplink);
    const next = placeFor(draft.plan, uplink.id, protocol, from, to - from + 1, id);
    draft.update('forward', id, { uplink: uplink.id, from: next, to: next + (to - from) });
    return `Forward ${portsText(protocol, from, to)}: over ${uplink.name}`;
  },
);

export const retargetForward = operation(
  'retargetForward',
  z.strictObject({ forward: z.string(), target: z.string() }),
  (draft, input) => {
    const forward = draft.need('forward', input.forward);
    const device = draft.need('device', draft.need('interface', input.target).device);
    draft.update('forward', forward.id, { target: input.target });
    return `Forward ${portsText(forward.protocol, forward.from, forward.to)}: to ${device.name}`;
  },
);

export const addListener = operation(
  'addListener',
  z.strictObject({
    device: z.string(),
    protocol: z.enum(protocols).default('tcp'),
    port: kinds.listener.fields.port,
    name: kinds.listener.fields.name.default(''),
  }),
  (draft, input) => {
    const device = draft.need('device', input.device);
    const twin = [...draft.plan.listener.group(device.id).values()].find(
      (other) => other.port === input.port && protocolsMeet(other.protocol, input.protocol),
    );
    if (twin) throw badInput(`${device.name} lists ${portsText(twin.protocol, twin.port)} already.`, 'port');
    const name = input.name || (knownServiceAt(input.protocol, input.port)?.name ?? '');
    draft.insert('listener', { ...input, name });
    return `${device.name} listens on ${portsText(input.protocol, input.port)}`;
  },
);

export const removeListener = operation(
  'removeListener',
  z.strictObject({ listener: z.string() }),
  (draft, input) => {
    const listener = draft.need('listener', input.listener);
    draft.remove('listener', listener.id);
    return `${draft.need('device', listener.device).name}: ${portsText(listener.protocol, listener.port)} no longer listed`;
  },
);
