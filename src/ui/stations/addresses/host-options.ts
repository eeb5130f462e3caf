import { type Device, deviceKinds } from '@/core/plan';

/** Kinds of devices and ways an address is fixed, as people read them. */

export const kindOptions = deviceKinds.map((value) => ({ value, label: value.replaceAll('-', ' ') }));
export const assignmentOptions = [
  { value: 'static' as const, label: 'static' },
  { value: 'reservation' as const, label: 'reserved' },
  { value: 'virtual' as const, label: 'virtual' },
];
/** Whom a device lets in by its own firewall. */
export const firewallWords: Readonly<Record<Device['firewall'], string>> = {
  unknown: 'not recorded',
  none: 'none, all get in',
  'own-subnet': 'own subnet only',
  'as-listed': 'what it listens on',
};
export const firewallOptions = (Object.keys(firewallWords) as Device['firewall'][]).map((value) => ({
  value,
  label: firewallWords[value],
}));
