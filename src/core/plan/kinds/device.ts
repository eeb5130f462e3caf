import { oneOf, text } from './fields';
import { kind } from './kind';

export const deviceKinds = [
  'gateway',
  'switch',
  'layer3-switch',
  'unmanaged-switch',
  'access-point',
  'provider-box',
  'patch-panel',
  'outlet',
  'server',
  'recorder',
  'computer',
  'phone',
  'camera',
  'printer',
  'controller',
  'safety-controller',
  'operator-panel',
  'drive',
  'sensor',
  'appliance',
  'other',
] as const;
/** Whom a device lets in by its own firewall. Unknown is what nobody looked up. */
export const ownFirewalls = ['unknown', 'none', 'own-subnet', 'as-listed'] as const;
export type DeviceKind = (typeof deviceKinds)[number];

/** A box or an end device. */
export const device = kind({
  word: 'device',
  about: 'a box or an end device: host name, kind, whom its own firewall lets in',
  since: 1,
  table: 'device',
  bucket: 'spread',
  indexes: { name: ({ name }) => name.toLowerCase() },
  fields: {
    name: text('name', 80, { said: 'The host name' }),
    kind: oneOf('kind', deviceKinds),
    /** `as-listed` lets in what it listens on, and no ping. */
    firewall: oneOf('own firewall', ownFirewalls, { column: 'own_firewall', since: 7 }).default('unknown'),
  },
  title: ({ name }) => name,
});
