import { type DeviceKind, type Plan, type Port, boxOf } from '../../plan';
import { linksAt, portsOf } from './wiring';

/** Watts reserved at the source by class (IEEE 802.3-2022 clause 145): 4, 7, 15.4, 30, 45, 60, 75, 90. */
const RESERVED: Readonly<Record<number, number>> = { 1: 4, 2: 7, 3: 15.4, 4: 30, 5: 45, 6: 60, 7: 75, 8: 90 };
/** What such devices usually draw: about half of what is reserved. For comparing, not for planning. */
const TYPICAL_SHARE = 0.5;

/**
 * The class a device of a kind usually asks for, until its own is written down: telephones 7 W, cameras 15.4 W, access points
 * 30 W; what has a power supply of its own asks for none.
 */
export const usualPoeClass: Readonly<Partial<Record<DeviceKind, number>>> = {
  phone: 2,
  camera: 3,
  'access-point': 4,
};

export const reservedFor = (poeClass: number): number => RESERVED[poeClass]!;

/** The class asked for at a port: that of the device plugged in; null when it asks for none. */
export function classAsked(plan: Plan, port: Port): number | null {
  if (port.poeClass === null || !port.enabled || port.role === 'parked') return null;
  for (const link of linksAt(plan, port)) {
    const far = plan.port.get(link.to)!;
    // Two boxes that both can power do not power each other.
    const powers = boxOf(plan, far.device)?.poeBudget != null;
    if (!powers && far.poeClass !== null) return Math.min(far.poeClass, port.poeClass);
  }
  return null;
}

export interface Power {
  readonly reserved: number;
  readonly typical: number;
  /** Budget less reserved; negative when too much is plugged in. Null without a budget. */
  readonly left: number | null;
  readonly ports: readonly Port[];
}

/** The power of a box by class. Each of several feeds has to carry it all when the others fail. */
export function powerOf(plan: Plan, device: string): Power {
  const powered = portsOf(plan, device).filter((port) => classAsked(plan, port) !== null);
  const watts = powered.reduce((sum, port) => sum + reservedFor(classAsked(plan, port)!), 0);
  const reserved = Math.round(watts * 10) / 10;
  const budget = boxOf(plan, device)?.poeBudget ?? null;
  return {
    reserved,
    typical: Math.round(watts * TYPICAL_SHARE),
    left: budget === null ? null : Math.round((budget - reserved) * 10) / 10,
    ports: powered,
  };
}
