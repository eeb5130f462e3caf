import type { Draft, Interface } from '../../plan';

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
