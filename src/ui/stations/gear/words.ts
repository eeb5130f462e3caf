import type { Plan } from '@/core/plan/plan';
import type { Port } from '@/core/plan/records';
import { taggedText } from '@/core/gear/typed-vlans';

export const roleWords: Readonly<Record<Port['role'], string>> = {
  access: 'access',
  trunk: 'trunk',
  voice: 'access + voice',
  parked: 'parked',
  uplink: 'faces a provider',
  undecided: 'undecided',
};

const vlanText = (plan: Plan, id: string | null): string => {
  const vlan = id === null ? undefined : plan.vlan.get(id);
  return vlan ? `${vlan.vid} ${vlan.code}` : 'none';
};

/** What a port carries, in words. */
export function carriedText(plan: Plan, port: Port): string {
  switch (port.role) {
    case 'access':
      return `access ${vlanText(plan, port.untagged)}`;
    case 'voice':
      return `access ${vlanText(plan, port.untagged)} + voice ${vlanText(plan, port.voice)}`;
    case 'trunk':
      return `trunk ${taggedText(plan, port)}, untagged ${vlanText(plan, port.untagged)}`;
    default:
      return roleWords[port.role];
  }
}
