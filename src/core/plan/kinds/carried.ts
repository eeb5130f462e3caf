import { flag, oneOf, ref, refs } from './fields';
import type { Gone } from './kind';

/** What a port or a profile carries (IEEE 802.1Q-2022 clauses 6.9 and 8.8): PVID and untagged VLAN are facts of their own. */

export const portRoles = ['access', 'trunk', 'voice', 'parked', 'uplink', 'undecided'] as const;
export const taggedModes = ['list', 'all', 'except'] as const;
export const acceptedFrames = ['all', 'tagged', 'untagged'] as const;

/** The fields of what is carried; `table` keeps the tagged VLANs. */
export const carriedFields = (table: string) => ({
  role: oneOf('role', portRoles),
  /** The VLAN an untagged frame is put in; null when none. */
  pvid: ref('vlan', 'hook', 'PVID').nullable(),
  /** The VLAN sent without a tag; null when none. */
  untagged: ref('vlan', 'hook', 'untagged VLAN').nullable(),
  /** `tagged` names the VLANs sent with a tag, or with `except` those that are not; with `all` it is empty. */
  taggedMode: oneOf('tagged', taggedModes),
  tagged: refs('vlan', 'hook', 'tagged VLANs', table),
  /** The VLAN announced to telephones by LLDP-MED; also among the tagged ones. */
  voice: ref('vlan', 'hook', 'voice VLAN').nullable(),
  accepts: oneOf('accepted frames', acceptedFrames),
  ingressFilter: flag('ingress filtering'),
});

export interface Carried {
  readonly role: (typeof portRoles)[number];
  readonly pvid: string | null;
  readonly untagged: string | null;
  readonly taggedMode: (typeof taggedModes)[number];
  readonly tagged: string[];
  readonly voice: string | null;
  readonly accepts: (typeof acceptedFrames)[number];
  readonly ingressFilter: boolean;
}

export const nothingCarried: Carried = {
  role: 'undecided',
  pvid: null,
  untagged: null,
  taggedMode: 'list',
  tagged: [],
  voice: null,
  accepts: 'all',
  ingressFilter: true,
};
export const undecided: Carried = { ...nothingCarried, ingressFilter: false };

/** One VLAN untagged, PVID the same, tagged frames refused. */
export const access = (vlan: string): Carried => ({
  ...nothingCarried,
  role: 'access',
  pvid: vlan,
  untagged: vlan,
  accepts: 'untagged',
});

/** Every VLAN that is spoken of. */
export const vlansIn = (carried: Carried): string[] => [
  ...new Set(
    [carried.pvid, carried.untagged, carried.voice, ...carried.tagged].filter((vlan) => vlan !== null),
  ),
];

/** The same without a VLAN that is going away. An access port is left undecided rather than silently elsewhere. */
function withoutVlan(carried: Carried, vlan: string): Partial<Carried> {
  if ((carried.role === 'access' || carried.role === 'voice') && carried.untagged === vlan) return undecided;
  if (carried.role === 'voice' && carried.voice === vlan) return access(carried.untagged!);
  const keep = (id: string | null) => (id === vlan ? null : id);
  return {
    pvid: keep(carried.pvid),
    untagged: keep(carried.untagged),
    voice: keep(carried.voice),
    tagged: carried.tagged.filter((id) => id !== vlan),
  };
}

/** The rule of both kinds for VLANs that are deleted. */
export const carriedWithout = {
  tables: ['vlan'],
  rule: <R extends Carried>(record: R, { ids }: Gone): R =>
    vlansIn(record)
      .filter((id) => ids.has(id))
      .reduce((now, id) => ({ ...now, ...withoutVlan(now, id) }), record),
};
