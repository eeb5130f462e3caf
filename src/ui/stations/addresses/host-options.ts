import { deviceKinds } from '@/core/plan';

/** Kinds of devices and ways an address is fixed, as people read them. */

export const kindOptions = deviceKinds.map((value) => ({ value, label: value.replaceAll('-', ' ') }));
export const assignmentOptions = [
  { value: 'static' as const, label: 'static' },
  { value: 'reservation' as const, label: 'reserved' },
  { value: 'virtual' as const, label: 'virtual' },
];
