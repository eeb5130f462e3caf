import { z } from 'zod';
import { idSchema, macCodec, text, whole } from './codecs';

/**
 * The records of gear: the box of a device, its ports, and the cables between them. What a box can do is recorded with
 * it, because the frames follow what it does and not what was meant.
 */
const ref = idSchema;
/** A day as 2026-12-31. */
export const day = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/, 'A day needs the form 2026-12-31')
  .refine((value) => !Number.isNaN(Date.parse(`${value}T00:00:00Z`)), 'This day is in no calendar');

export const factoryStates = ['default-vlan', 'every-vlan', 'by-neighbour'] as const;
export const filters = ['none', 'stateless', 'stateful'] as const;
export const controlFrames = ['bpdu', 'eapol', 'lldp'] as const;
export const spanningTrees = ['none', 'rstp', 'rstp-per-vlan', 'mst', 'ring'] as const;

/** The hardware of a device that has ports of its own to assign, and what is kept about it. One to a device. */
export const boxSchema = z.strictObject({
  id: idSchema,
  device: ref,
  model: text('The model', 80),
  /** False: learns addresses without looking at tags and passes tagged frames unchanged. */
  vlanAware: z.boolean(),
  /** How many VLANs it can hold; null when nobody knows a limit. */
  vlanLimit: whole('The VLAN limit', 1, 4094).nullable(),
  /** Can one port carry tagged VLANs and an untagged one together? */
  mixesTags: z.boolean(),
  /** Control frames that a box without VLANs or spanning tree passes on. A set, in the order of the list. */
  passes: z.array(z.enum(controlFrames)),
  layer3: z.boolean(),
  filter: z.enum(filters),
  spanningTree: z.enum(spanningTrees),
  snooping: z.boolean(),
  dot1x: z.boolean(),
  /** What its ports are as it leaves the factory: untagged in VLAN 1, members of every VLAN, or by what is plugged in. */
  factory: z.enum(factoryStates),
  /** Watts for all powered ports together; null when it powers none. */
  poeBudget: whole('The PoE budget in watts', 1, 10_000).nullable(),
  powerFeeds: whole('The power feeds', 1, 4),
  location: text('The location', 80, 0),
  mounting: text('The rack or rail', 80, 0),
  assetTag: text('The asset tag', 40, 0),
  serial: text('The serial number', 60, 0),
  revision: text('The hardware revision', 40, 0),
  baseMac: macCodec.nullable(),
  firmware: text('The firmware version', 40, 0),
  supportedUntil: day.nullable(),
  licence: text('The licence', 80, 0),
  licenceUntil: day.nullable(),
  /** When the default login was changed, and where the new one is kept. Never the secret. */
  loginChanged: day.nullable(),
  loginKept: text('Where the login is kept', 80, 0),
  /** The device that configures this one; null when it is configured by itself. */
  controller: ref.nullable(),
});

export const portRoles = ['access', 'trunk', 'voice', 'parked', 'uplink', 'undecided'] as const;
export const portMedia = ['copper', 'fibre', 'combo', 'inner'] as const;
export const taggedModes = ['list', 'all', 'except'] as const;
export const acceptedFrames = ['all', 'tagged', 'untagged'] as const;
export const selfRoles = ['no', 'neighbour', 'mac'] as const;

/** What a port carries (IEEE 802.1Q-2022 clauses 6.9 and 8.8): PVID and untagged VLAN are facts of their own. */
const carried = {
  role: z.enum(portRoles),
  /** The VLAN an untagged frame is put in; null when none. */
  pvid: ref.nullable(),
  /** The VLAN sent without a tag; null when none. */
  untagged: ref.nullable(),
  /** `tagged` names the VLANs sent with a tag, or with `except` those that are not; with `all` it is empty. */
  taggedMode: z.enum(taggedModes),
  tagged: z.array(ref),
  /** The tagged VLAN announced to a telephone. */
  voice: ref.nullable(),
  accepts: z.enum(acceptedFrames),
  ingressFilter: z.boolean(),
};

export const profileSchema = z.strictObject({
  id: idSchema,
  name: text('The profile’s name', 40),
  ...carried,
});

/** Member ports act as one logical port. */
export const aggregateSchema = z.strictObject({
  id: idSchema,
  device: ref,
  name: text('The name of the bundle', 40),
  lacp: z.boolean(),
});

export const portSchema = z.strictObject({
  id: idSchema,
  device: ref,
  /** As printed on the case; 0 is the inner port, behind which the box itself lives. */
  number: whole('The port number', 0, 999),
  /** The number the box counts by inside; null when nobody recorded it. */
  index: whole('The index inside', 0, 65_535).nullable(),
  /** The name in the configuration. */
  name: text('The name in the configuration', 40, 0),
  /** Place on the face, from the top left. */
  row: whole('The row', 0, 9),
  column: whole('The column', 0, 199),
  media: z.enum(portMedia),
  /** Megabits per second. */
  speed: whole('The speed in Mbit/s', 1, 800_000),
  /** The highest PoE class it can power (IEEE 802.3 clause 145), or for a powered device the class it asks for. */
  poeClass: whole('The PoE class', 1, 8).nullable(),
  optic: text('The optic', 60, 0),
  defective: z.boolean(),
  ...carried,
  setsItself: z.enum(selfRoles),
  enabled: z.boolean(),
  /** In a place where strangers can reach it. */
  exposed: z.boolean(),
  label: text('The label', 60, 0),
  profile: ref.nullable(),
  aggregate: ref.nullable(),
});

export const cableMedia = ['copper', 'multi-mode', 'single-mode', 'direct-attach'] as const;
export const cableSides = ['front', 'rear'] as const;
const side = z.enum(cableSides);

/** A cable between two ports. On panels and outlets the side says whether it ends in front or behind. */
export const cableSchema = z.strictObject({
  id: idSchema,
  from: ref,
  fromSide: side,
  to: ref,
  toSide: side,
  media: z.enum(cableMedia),
  /** Whole metres; null when not measured. */
  length: whole('The length in metres', 0, 100_000).nullable(),
  label: text('The label', 60, 0),
});
