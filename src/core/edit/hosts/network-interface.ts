import type { Draft, Interface } from '../../plan';
import { adding, carries, innerPort } from '../../model/wiring';

/** Settings as the subnet gives them: nothing is set on the device itself. */
export const subnetsSettings: Pick<Interface, 'ownLength' | 'ownGateway' | 'ownDns'> = {
  ownLength: null,
  ownGateway: null,
  ownDns: null,
};

/** A network card of a device, by itself in no VLAN. */
export const insertCard = (draft: Draft, device: string, fields: Partial<Interface> = {}): Interface =>
  draft.insert('interface', {
    device,
    kind: 'nic',
    vlan: null,
    mac: null,
    name: '',
    joins: null,
    ...subnetsSettings,
    ...fields,
  });

/** A box that lives in a segment hears it: its inside becomes a member. Says whether it was none. */
export function hearInside(draft: Draft, device: string, vlan: string): boolean {
  const inner = innerPort(draft.plan, device);
  if (!inner || carries(inner, vlan)) return false;
  draft.update('port', inner.id, { ...adding(inner, vlan), profile: null });
  return true;
}

/** A routing box’s interface in a segment. */
export function insertRouted(draft: Draft, device: string, vlan: string): Interface {
  const made = insertCard(draft, device, { kind: 'vlan', vlan });
  hearInside(draft, device, vlan);
  return made;
}
