import {
  type Plan,
  type Port,
  type Carried,
  access,
  nothingCarried,
  undecided,
  vlansIn,
  plainVlansOf,
} from '../../plan';

export { type Carried, access, undecided, vlansIn };

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

/** Whether two are the same in words: role and the VLANs it is said with, however strict a port is about what it takes. */
export function sameCarried(a: Carried, b: Carried): boolean {
  if (a.role !== b.role) return false;
  const sameUntagged = a.untagged === b.untagged;
  if (a.role === 'access') return sameUntagged;
  if (a.role === 'voice') return sameUntagged && a.voice === b.voice;
  return (
    a.role !== 'trunk' ||
    (sameUntagged &&
      a.taggedMode === b.taggedMode &&
      a.tagged.length === b.tagged.length &&
      a.tagged.every((vlan) => b.tagged.includes(vlan)))
  );
}

/** A tagged set, and at most one VLAN without a tag. A port with none takes tagged frames only. */
export const trunk = (
  tagged: readonly string[],
  untagged: string | null = null,
  taggedMode: Port['taggedMode'] = 'list',
): Carried => ({
  ...nothingCarried,
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
  const parking = plainVlansOf(plan).find((vlan) => vlan.purpose === 'parking')?.id ?? null;
  return { ...nothingCarried, role: 'parked', pvid: parking, untagged: parking, accepts: 'untagged' };
};

export const uplinkRole: Carried = { ...nothingCarried, role: 'uplink' };
/** Does any frame pass? Not when it is off, defective, parked or faces a provider. */
export const isOpen = (port: Pick<Port, 'enabled' | 'defective' | 'role'>): boolean =>
  port.enabled && !port.defective && port.role !== 'parked' && port.role !== 'uplink';

/** Is the port, decided as it stands, a member of a VLAN? An undecided one is not, whatever the factory made it. */
export const carries = (port: Carried, vlan: string): boolean =>
  port.role !== 'undecided' &&
  (port.untagged === vlan ||
    port.taggedMode === 'all' ||
    port.tagged.includes(vlan) === (port.taggedMode === 'list'));

/** What a port carries with one VLAN more. */
export function adding(port: Carried, vlan: string): Carried {
  if (port.role === 'access' || port.role === 'voice')
    return { ...trunk([...port.tagged, vlan], port.untagged), voice: port.voice };
  if (port.role !== 'trunk') return trunk([vlan]);
  const tagged =
    port.taggedMode === 'except' ? port.tagged.filter((id) => id !== vlan) : [...port.tagged, vlan].sort();
  return { ...carriedOf(port), tagged };
}

/** What a port carries with one VLAN fewer. */
export function dropping(port: Carried, vlan: string): Carried {
  if (port.untagged === vlan) return trunk(port.tagged, null, port.taggedMode);
  if (port.taggedMode === 'list')
    return { ...carriedOf(port), tagged: port.tagged.filter((id) => id !== vlan) };
  return { ...carriedOf(port), taggedMode: 'except', tagged: [...port.tagged, vlan].sort() };
}
