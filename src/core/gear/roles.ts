import type { Plan } from '../plan/plan';
import type { Port } from '../plan/records';
import { vlansOf } from '../plan/view';

/** What a port carries, without the port: what a role, a profile or an edit sets. */
export type Carried = Pick<
  Port,
  'role' | 'pvid' | 'untagged' | 'taggedMode' | 'tagged' | 'voice' | 'accepts' | 'ingressFilter'
>;

export const carriedOf = (from: Carried): Carried => ({
  role: from.role,
  pvid: from.pvid,
  untagged: from.untagged,
  taggedMode: from.taggedMode,
  tagged: from.tagged,
  voice: from.voice,
  accepts: from.accepts,
  ingressFilter: from.ingressFilter,
});

const nothing: Carried = {
  role: 'undecided',
  pvid: null,
  untagged: null,
  taggedMode: 'list',
  tagged: [],
  voice: null,
  accepts: 'all',
  ingressFilter: true,
};

/** One VLAN untagged, PVID the same, tagged frames refused. */
export const access = (vlan: string): Carried => ({
  ...nothing,
  role: 'access',
  pvid: vlan,
  untagged: vlan,
  accepts: 'untagged',
});

/** A tagged set, and at most one VLAN without a tag. A port with none takes tagged frames only. */
export const trunk = (
  tagged: readonly string[],
  untagged: string | null = null,
  taggedMode: Port['taggedMode'] = 'list',
): Carried => ({
  ...nothing,
  role: 'trunk',
  pvid: untagged,
  untagged,
  taggedMode,
  tagged: taggedMode === 'all' ? [] : [...new Set(tagged)].filter((vlan) => vlan !== untagged).sort(),
  accepts: untagged === null ? 'tagged' : 'all',
});

/** Access plus one tagged VLAN, announced to the telephone by LLDP-MED (ANSI/TIA-1057). */
export const accessWithVoice = (vlan: string, voice: string): Carried => ({
  ...access(vlan),
  role: 'voice',
  tagged: [voice],
  voice,
  accepts: 'all',
});

/** Off, and should it be switched on by mistake, in a VLAN that goes nowhere. */
export const parked = (plan: Plan): Carried => {
  const parking = vlansOf(plan).find((vlan) => vlan.purpose === 'parking')?.id ?? null;
  return { ...nothing, role: 'parked', pvid: parking, untagged: parking, accepts: 'untagged' };
};

export const uplink: Carried = { ...nothing, role: 'uplink' };
export const undecided: Carried = { ...nothing, ingressFilter: false };

/** Every VLAN a record of a port speaks of. */
export const vlansIn = (carried: Carried): string[] => [
  ...new Set(
    [carried.pvid, carried.untagged, carried.voice, ...carried.tagged].filter((vlan) => vlan !== null),
  ),
];

/** The same without a VLAN that is going away. An access port is left undecided rather than silently elsewhere. */
export function without(carried: Carried, vlan: string): Carried {
  if ((carried.role === 'access' || carried.role === 'voice') && carried.untagged === vlan) return undecided;
  if (carried.role === 'voice' && carried.voice === vlan) return access(carried.untagged!);
  const keep = (id: string | null) => (id === vlan ? null : id);
  return {
    ...carried,
    pvid: keep(carried.pvid),
    untagged: keep(carried.untagged),
    voice: keep(carried.voice),
    tagged: carried.tagged.filter((id) => id !== vlan),
  };
}

/** Does any frame pass? Not when it is off, defective, parked or faces a provider. */
export const isOpen = (port: Pick<Port, 'enabled' | 'defective' | 'role'>): boolean =>
  port.enabled && !port.defective && port.role !== 'parked' && port.role !== 'uplink';

/** Is the port, decided as it stands, a member of a VLAN? An undecided one is not, whatever the factory made it. */
export const carries = (port: Carried, vlan: string): boolean =>
  port.role !== 'undecided' &&
  (port.untagged === vlan ||
    port.taggedMode === 'all' ||
    port.tagged.includes(vlan) === (port.taggedMode === 'list'));
