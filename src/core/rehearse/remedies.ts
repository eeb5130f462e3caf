import type { Port, Vlan, Remedy } from '../plan';

/** Remedies that checks of several kinds, and the probe, offer. */

export const subnetSettings = (item: string): Remedy => ({
  label: 'Use the subnet’s settings',
  operation: 'useSubnetSettings',
  input: { interface: item },
});

export const carryRemedy = (label: string, vlan: Pick<Vlan, 'id'>): Remedy => ({
  label,
  operation: 'carryNeeded',
  input: { vlan: vlan.id },
});

export const joinRemedy = (label: string, port: Pick<Port, 'id'>, vlan: Pick<Vlan, 'id'>): Remedy => ({
  label,
  operation: 'joinSegment',
  input: { port: port.id, vlan: vlan.id },
});
