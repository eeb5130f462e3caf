import { formatPrefix, overlaps } from '../../address';
import { type Plan, type VoiceBox, addressesOn, interfacesOf } from '../../plan';
import { uplinksOf } from './view';

/** What a provider's box kept behind the gateway needs so that the telephones go on ringing, and what is lost when. */

/** Expedited forwarding, what voice is marked with (RFC 3246). */
export const EF = 46;

/** The networks that the box's own network collides with, by name. */
export const collisions = (plan: Plan, { own }: VoiceBox): string[] =>
  own === null
    ? []
    : [...plan.subnet.values()]
        .filter(({ prefix }) => overlaps(prefix, own))
        .map(({ prefix, vlan }) => `${plan.vlan.get(vlan)!.name} ${formatPrefix(prefix)}`);

/** Does the box always have the same address here? */
export const isPinned = (plan: Plan, { device }: VoiceBox): boolean =>
  interfacesOf(plan, device).some((item) => addressesOn(plan, item.id).length > 0);

/** What of the telephones is lost at which fault, one sentence each. */
export function losses(plan: Plan, box: VoiceBox): string[] {
  const { name } = plan.device.get(box.device)!;
  const uplink = plan.uplink.get(box.uplink)!;
  const others = uplinksOf(plan).filter(({ id, enabled }) => enabled && id !== uplink.id);
  return [
    box.backedUp
      ? `Mains fail: ${name}, the gateway and the way between them run on as long as the backup lasts; with it goes every call, emergency calls included.`
      : `Mains fail: every call is lost at once, emergency calls and alarm lines included; ${name} and the gateway have no backup.`,
    others.length === 0
      ? `${uplink.name} fails: no call in or out, there is no other uplink.`
      : `${uplink.name} fails: ${name} registers only with its own provider, so no call goes over ${others.map((other) => other.name).join(' or ')} either, unless the provider says otherwise.`,
  ];
}
