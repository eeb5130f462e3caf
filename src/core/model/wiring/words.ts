import { type Plan, type Port, portTitle, boxOf } from '../../plan';
import { type CableEnd, isPassive, linksAt } from './wiring';
import { taggedText } from './typed-vlans';

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

/** What the schedule says that a port carries; of a panel nothing, as it only joins cables. */
export function scheduledText(plan: Plan, port: Port): string {
  if (port.defective) return 'defective';
  return isPassive(plan.device.get(port.device)!.kind) ? '' : carriedText(plan, port);
}

/** What a port leads to, as text: "gw-1 2", "cam-03", "gw-1 2 through panel 7". */
export function leadsTo(plan: Plan, port: Port): string {
  return linksAt(plan, port)
    .map((link) => {
      const far = plan.port.get(link.to)!;
      const through = link.through.map((id) => portTitle(plan, plan.port.get(id)!));
      const end = portTitle(plan, far);
      return through.length ? `${end} through ${through.join(', ')}` : end;
    })
    .join(' and ');
}

/** A port in one sentence, as a reader hears it: "sw-a 5: access 140 CM, to gate-cam-01". */
export function portLabel(plan: Plan, port: Port): string {
  const device = plan.device.get(port.device)!;
  const to = leadsTo(plan, port);
  const what = isPassive(device.kind)
    ? 'joins cables'
    : boxOf(plan, device.id)?.vlanAware === false
      ? 'no VLANs'
      : carriedText(plan, port);
  return `${portTitle(plan, port)}: ${what}${to ? `, to ${to}` : ''}${port.defective ? ', defective' : ''}`;
}

/** An end of a cable as it is typed: "sw-a 5", and of a panel or an outlet with its side, "panel-a 5 rear". */
export function cableEndText(plan: Plan, { port: id, side }: CableEnd): string {
  const port = plan.port.get(id)!;
  return `${portTitle(plan, port)}${isPassive(plan.device.get(port.device)!.kind) ? ` ${side}` : ''}`;
}
