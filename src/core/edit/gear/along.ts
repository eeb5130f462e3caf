import type { Draft, Port } from '../../plan';
import { access, accessWithVoice, endsAt, homesOf, linksAt, portsOf } from '../../model/wiring';
import { carryEverywhere } from './carry';

/**
 * Hosts moved from one segment to another: ports of the old one at which they are plugged in alone go along, and the new one is
 * carried to them. Returns those ports. What others share, and what a host needs that still lives elsewhere too, stays.
 */
export function takePortsAlong(
  draft: Draft,
  devices: Iterable<string>,
  from: string,
  to: string,
): readonly Port[] {
  const { plan } = draft;
  const telephones = plan.vlan.get(to)!.purpose === 'voice';
  const calls = (port: Port) => telephones && port.role === 'voice' && port.voice === from;
  const ports = [...devices]
    .filter((device) => homesOf(plan, device).every(({ id }) => id === to))
    .flatMap((device) => portsOf(plan, device).flatMap((own) => linksAt(plan, own)))
    .map((link) => plan.port.get(link.to)!)
    .filter((port) => calls(port) || (port.role === 'access' && port.untagged === from))
    .filter((port) => endsAt(plan, port).length === 1);
  for (const port of ports) {
    const carried = calls(port) ? accessWithVoice(port.untagged!, to) : access(to);
    draft.update('port', port.id, { ...carried, profile: null });
  }
  if (ports.length > 0) carryEverywhere(draft, to);
  return ports;
}
