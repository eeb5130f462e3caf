import { z } from 'zod';
import { familyOf } from '../address/ip';
import { addressCodec, idSchema, macCodec, prefixCodec, text, timeCodec, whole } from './codecs';
import { aggregateSchema, boxSchema, cableSchema, portSchema, profileSchema } from './gear';
import { forwardSchema, offerSchema, uplinkSchema } from './internet';
import { relaySchema, routeSchema, translationSchema, tunnelSchema, voiceBoxSchema } from './routing';
import { questionSchema } from './question';
import { bridgeSchema, instanceSchema, treePortSchema } from './tree';
import { cellSchema, partySchema, ruleSchema, serviceSchema, zoneSchema } from './policy';

/**
 * The records of the plan: one schema per kind, its type inferred. Shape is enforced here; a mistake a person can
 * make in a plan (a VLAN id twice, an address twice) is a finding and must pass. Canonical form: absent is null,
 * growth in whole per cent, order as rank strings.
 */
const ref = idSchema;

export const SITE_ID = 'site';
export const siteKinds = ['home', 'office', 'industrial'] as const;
export const siteSchema = z.strictObject({
  id: z.literal(SITE_ID),
  name: text('The site’s name', 80),
  kind: z.enum(siteKinds),
  /** Prefixes this site may number its segments from. */
  space: z
    .array(prefixCodec)
    .min(1, 'The address space is empty; name at least one prefix, like 192.168.0.0/16'),
  /** Networks of others that this site must not collide with. */
  foreign: z.array(z.strictObject({ prefix: prefixCodec, why: text('The reason', 120, 0) })),
  /** Third octet equals VLAN id, or any free block. */
  numbering: z.enum(['third-octet', 'free']),
  /** A /24 for each segment so that people can read it, or sized to need plus growth. */
  sizing: z.enum(['slash-24', 'need']),
  /** Where fixed addresses live: set on the device outside the pool, or reserved by MAC on the server. */
  fixed: z.enum(['outside-pool', 'reservation']),
  /** Does the DHCP server accept a reservation inside its pool? Servers differ. */
  reservationInPool: z.boolean(),
  /** Management in the default VLAN, or in a segment of its own. */
  management: z.enum(['own-segment', 'default-vlan']),
  /** Host numbers 1…n of each subnet are for infrastructure; the next `fixedBand` for fixed addresses. */
  infrastructureBand: whole('The infrastructure band', 0, 1000),
  fixedBand: whole('The fixed band', 0, 60000),
  gatewayHabit: z.enum(['first', 'last']),
  /** Tokens {code}, {kind}, {n} or {nn}: "{code}-{kind}-{nn}" gives cm-camera-07. */
  namingPattern: text('The naming pattern', 60),
  /** The domain of segments that name none. */
  domain: text('The domain', 120, 0),
  /** True on a teaching or example site: documentation ranges are then allowed inside. */
  documentation: z.boolean(),
  timeZone: text('The time zone', 60),
  notes: z.string().max(4000, 'The notes are longer than 4000 characters; shorten them'),
});

export const lanSchema = z.strictObject({ id: idSchema, name: text('The LAN’s name', 60) });

export const purposes = [
  'management',
  'staff',
  'guest',
  'iot',
  'cameras',
  'voice',
  'servers',
  'control-cell',
  'supervisory',
  'building',
  'exchange',
  'transit',
  'parking',
] as const;
export type Purpose = (typeof purposes)[number];

export const vlanSchema = z.strictObject({
  id: idSchema,
  lan: ref,
  vid: whole('The VLAN id', 1, 4094),
  code: z.string().regex(/^[A-Z0-9]{2,3}$/, 'The code needs two or three capital letters or digits, like CM'),
  name: text('The segment’s name', 60),
  colour: z.string().regex(/^#[0-9a-f]{6}$/, 'The colour needs six hexadecimal digits after #, like #e2a21b'),
  purpose: z.enum(purposes),
  internet: z.boolean(),
  devices: whole('Devices now', 0, 1_000_000),
  growth: whole('Growth', 0, 1000),
  /** People who come and go: most present at once, arrivals per hour, hours open per day. */
  transient: z
    .strictObject({
      present: whole('Most present at once', 0, 1_000_000),
      arrivalsPerHour: whole('Arrivals per hour', 0, 1_000_000),
      openHours: whole('Hours open per day', 1, 24),
    })
    .nullable(),
  rank: z.string().regex(/^[A-Za-z0-9]{1,60}$/),
});

export const deviceKinds = [
  'gateway',
  'switch',
  'layer3-switch',
  'unmanaged-switch',
  'access-point',
  'provider-box',
  'patch-panel',
  'outlet',
  'server',
  'recorder',
  'computer',
  'phone',
  'camera',
  'printer',
  'controller',
  'safety-controller',
  'operator-panel',
  'drive',
  'sensor',
  'appliance',
  'other',
] as const;
export type DeviceKind = (typeof deviceKinds)[number];

export const deviceSchema = z.strictObject({
  id: idSchema,
  name: text('The host name', 80),
  kind: z.enum(deviceKinds),
});

export const interfaceSchema = z.strictObject({
  id: idSchema,
  device: ref,
  kind: z.enum(['nic', 'vlan']),
  /** The VLAN a routing device serves with this interface; null for the network card of an end device. */
  vlan: ref.nullable(),
  mac: macCodec.nullable(),
  /** Name of the interface in the configuration; empty when nobody recorded it. */
  name: text('The interface name', 60, 0),
  /** Settings really on the device where they differ from the subnet's; null means the subnet's. */
  ownLength: whole('The mask length', 0, 128).nullable(),
  ownGateway: addressCodec.nullable(),
  ownDns: z.array(addressCodec).nullable(),
});

/** A DNS server by the interface it answers on, so that renumbering moves it, or by literal address. */
export const dnsServerSchema = z.union([
  z.strictObject({ interface: ref }),
  z.strictObject({ literal: addressCodec }),
]);

export const subnetSchema = z.strictObject({
  id: idSchema,
  vlan: ref,
  prefix: prefixCodec,
  /** A pinned subnet is never moved by Fit. */
  pinned: z.boolean(),
  dns: z.array(dnsServerSchema),
  domain: text('The domain', 120, 0),
});

const ordered = (range: { start: number | bigint; end: number | bigint }) =>
  familyOf(range.start) === familyOf(range.end) && range.start <= range.end;
const orderMessage = 'The start lies after the end; swap them';

export const poolSchema = z
  .strictObject({
    id: idSchema,
    subnet: ref,
    start: addressCodec,
    end: addressCodec,
    /** Lease time in seconds (RFC 2131 section 3.3). */
    lease: whole('The lease time in seconds', 60, 31_536_000),
    /** Interfaces of the servers; more than one for a failover or split pair. */
    servedBy: z.array(ref),
  })
  .refine(ordered, { message: orderMessage, path: ['end'] });

export const exclusionSchema = z
  .strictObject({
    id: idSchema,
    subnet: ref,
    start: addressCodec,
    end: addressCodec,
    why: text('The reason', 120, 0),
  })
  .refine(ordered, { message: orderMessage, path: ['end'] });

export const addressSchema = z.strictObject({
  id: idSchema,
  subnet: ref,
  address: addressCodec,
  interface: ref,
  assignment: z.enum(['static', 'reservation', 'virtual']),
  gateway: z.boolean(),
  note: text('The note', 200, 0),
});

export const acceptanceSchema = z.strictObject({
  id: idSchema,
  finding: text('The finding', 200),
  evidence: text('The evidence', 2000),
  reason: text('The reason', 400),
  who: text('Your name', 60),
  at: timeCodec,
});

/** Every record kind, parents before children: the order in which rows are written and files are listed. */
export const recordSchemas = {
  site: siteSchema,
  lan: lanSchema,
  vlan: vlanSchema,
  device: deviceSchema,
  interface: interfaceSchema,
  box: boxSchema,
  profile: profileSchema,
  aggregate: aggregateSchema,
  port: portSchema,
  cable: cableSchema,
  bridge: bridgeSchema,
  instance: instanceSchema,
  treePort: treePortSchema,
  subnet: subnetSchema,
  pool: poolSchema,
  exclusion: exclusionSchema,
  relay: relaySchema,
  address: addressSchema,
  uplink: uplinkSchema,
  forward: forwardSchema,
  offer: offerSchema,
  route: routeSchema,
  tunnel: tunnelSchema,
  translation: translationSchema,
  voiceBox: voiceBoxSchema,
  zone: zoneSchema,
  service: serviceSchema,
  cell: cellSchema,
  rule: ruleSchema,
  question: questionSchema,
  acceptance: acceptanceSchema,
} as const;

export type TableName = keyof typeof recordSchemas;
export type RecordOf<T extends TableName> = Readonly<z.output<(typeof recordSchemas)[T]>>;
export type AnyRecord = { [T in TableName]: RecordOf<T> }[TableName];
export const tableNames = Object.keys(recordSchemas) as TableName[];

export type Site = RecordOf<'site'>;
export type Lan = RecordOf<'lan'>;
export type Vlan = RecordOf<'vlan'>;
export type Device = RecordOf<'device'>;
export type Interface = RecordOf<'interface'>;
export type Box = RecordOf<'box'>;
export type Profile = RecordOf<'profile'>;
export type Aggregate = RecordOf<'aggregate'>;
export type Port = RecordOf<'port'>;
export type Cable = RecordOf<'cable'>;
export type BridgeRecord = RecordOf<'bridge'>;
export type Instance = RecordOf<'instance'>;
export type TreePort = RecordOf<'treePort'>;
export type Question = RecordOf<'question'>;
export type Subnet = RecordOf<'subnet'>;
export type Pool = RecordOf<'pool'>;
export type Exclusion = RecordOf<'exclusion'>;
export type Relay = RecordOf<'relay'>;
export type Address = RecordOf<'address'>;
export type Uplink = RecordOf<'uplink'>;
export type Forward = RecordOf<'forward'>;
export type Offer = RecordOf<'offer'>;
export type Route = RecordOf<'route'>;
export type Tunnel = RecordOf<'tunnel'>;
export type Translation = RecordOf<'translation'>;
export type VoiceBox = RecordOf<'voiceBox'>;
export type Zone = RecordOf<'zone'>;
export type Service = RecordOf<'service'>;
export type Cell = RecordOf<'cell'>;
export type Rule = RecordOf<'rule'>;
export type Party = Readonly<z.output<typeof partySchema>>;
export type Acceptance = RecordOf<'acceptance'>;
export type DnsServer = Readonly<z.output<typeof dnsServerSchema>>;
export type Transient = NonNullable<Vlan['transient']>;

const carriedReferences = { pvid: 'vlan', untagged: 'vlan', tagged: 'vlan', voice: 'vlan' } as const;

/** Which fields of a record point at which other records. Drives reference checks and "what hangs on it". */
export const references: { readonly [T in TableName]: Readonly<Record<string, TableName>> } = {
  site: {},
  lan: {},
  vlan: { lan: 'lan' },
  device: {},
  interface: { device: 'device', vlan: 'vlan' },
  box: { device: 'device', controller: 'device' },
  profile: carriedReferences,
  aggregate: { device: 'device' },
  port: { device: 'device', ...carriedReferences, profile: 'profile', aggregate: 'aggregate' },
  cable: { from: 'port', to: 'port' },
  bridge: { device: 'device', ringPorts: 'port' },
  instance: { device: 'device' },
  treePort: { port: 'port' },
  subnet: { vlan: 'vlan', dns: 'interface' },
  pool: { subnet: 'subnet', servedBy: 'interface' },
  exclusion: { subnet: 'subnet' },
  relay: { interface: 'interface', servers: 'interface' },
  address: { subnet: 'subnet', interface: 'interface' },
  uplink: { device: 'device', segment: 'vlan', port: 'port', updater: 'device' },
  forward: { uplink: 'uplink', target: 'interface' },
  offer: { device: 'device' },
  route: { device: 'device' },
  tunnel: { device: 'device', uplink: 'uplink' },
  translation: { device: 'device', subnet: 'subnet' },
  voiceBox: { device: 'device', uplink: 'uplink' },
  zone: { vlans: 'vlan', uplinks: 'uplink', tunnels: 'tunnel' },
  service: {},
  cell: { from: 'zone', to: 'zone' },
  rule: { device: 'device' },
  question: {
    fromPort: 'port',
    fromDevice: 'device',
    fromVlan: 'vlan',
    toDevice: 'device',
    toVlan: 'vlan',
  },
  acceptance: {},
};

/** The ids a record points at through one of its reference fields. */
export function referencedIds(record: AnyRecord, field: string): string[] {
  const value = (record as unknown as Record<string, unknown>)[field];
  if (value === null || value === undefined) return [];
  const list: unknown[] = Array.isArray(value) ? value : [value];
  return list.flatMap((item) => {
    if (typeof item === 'string') return [item];
    const target = (item as { interface?: string }).interface;
    return target === undefined ? [] : [target];
  });
}
