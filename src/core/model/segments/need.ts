import type { Site, Transient, Vlan } from '../../plan';

/** A number with the arithmetic that led to it, for people who check. */
export interface Sum {
  readonly total: number;
  readonly text: string;
}

/** Devices with growth: ⌈now × (1 + growth)⌉, growth in per cent. Whole-number arithmetic, no rounding surprises. */
export const grown = (devices: number, growth: number): number => Math.ceil((devices * (100 + growth)) / 100);

const factor = (growth: number) => String((100 + growth) / 100);
const grownText = (vlan: Pick<Vlan, 'devices' | 'growth'>) =>
  vlan.growth === 0 ? `${vlan.devices}` : `⌈${vlan.devices} × ${factor(vlan.growth)}⌉`;

/**
 * Most arrivals within any span as long as the lease, for a place open `openHours` a day: whole days count their
 * open hours, the rest at most the open hours. People who leave do not give the lease back.
 */
export function arrivalsWithin(transient: Transient, leaseSeconds: number): number {
  const hours = leaseSeconds / 3600;
  const days = Math.floor(hours / 24);
  const open = days * transient.openHours + Math.min(hours - days * 24, transient.openHours);
  return Math.ceil(transient.arrivalsPerHour * open);
}

const hoursText = (seconds: number) => `${Math.round(seconds / 360) / 10} h`;

/** Leases that people who come and go can hold at once: most present, or if larger the arrivals within one lease. */
export function transientNeed(transient: Transient | null, leaseSeconds: number): Sum {
  if (!transient) return { total: 0, text: '0' };
  const arrivals = arrivalsWithin(transient, leaseSeconds);
  const total = Math.max(transient.present, arrivals);
  const lease = hoursText(leaseSeconds);
  return {
    total,
    text: `max(${transient.present} present, ${arrivals} arrivals within a lease of ${lease}) = ${total}`,
  };
}

/**
 * Addresses a segment needs: ⌈devices × (1 + growth)⌉ + people who come and go + infrastructure band + gateways.
 */
export function subnetNeed(
  vlan: Pick<Vlan, 'devices' | 'growth' | 'transient'>,
  site: Pick<Site, 'infrastructureBand'>,
  leaseSeconds: number,
  gateways = 1,
): Sum {
  const visitors = transientNeed(vlan.transient, leaseSeconds).total;
  const total = grown(vlan.devices, vlan.growth) + visitors + site.infrastructureBand + gateways;
  const terms = [
    grownText(vlan),
    ...(visitors ? [`${visitors}`] : []),
    `${site.infrastructureBand}`,
    `${gateways}`,
  ];
  return { total, text: `${terms.join(' + ')} = ${total}` };
}

/** Leases a segment's pools must hold: devices with growth that have no fixed address, and people who come and go. */
export function poolNeed(
  vlan: Pick<Vlan, 'devices' | 'growth' | 'transient'>,
  fixedHosts: number,
  leaseSeconds: number,
): Sum {
  const visitors = transientNeed(vlan.transient, leaseSeconds);
  const dynamic = Math.max(0, grown(vlan.devices, vlan.growth) - fixedHosts);
  const total = dynamic + visitors.total;
  const residents = `${grownText(vlan)} − ${fixedHosts} fixed${dynamic === 0 ? ', not below 0' : ''}`;
  return {
    total,
    text: vlan.transient ? `${residents} + ${visitors.text}; ${total}` : `${residents} = ${total}`,
  };
}

/**
 * The longest IPv4 prefix that holds `need` hosts, at most a /29 outside transit links (where a /31, RFC 3021, or a
 * /30 do). Null when not even a /8 does.
 */
export function prefixLengthFor(need: number, transit = false): number | null {
  for (let length = transit ? 31 : 29; length >= 8; length--) {
    const usable = length === 31 ? 2 : 2 ** (32 - length) - 2;
    if (usable >= need) return length;
  }
  return null;
}

const HOUR = 3600;
/** Lease times people set, longest first, in seconds. */
export const usualLeases = [168, 72, 24, 12, 8, 4, 2, 1, 0.5].map((hours) => hours * HOUR);
export const DEFAULT_LEASE = 12 * HOUR;

/** The longest usual lease, up to the default, with which the pool holds its need; null when none does. */
export function proposeLease(
  vlan: Pick<Vlan, 'devices' | 'growth' | 'transient'>,
  fixedHosts: number,
  capacity: number,
  longest = DEFAULT_LEASE,
): number | null {
  return (
    usualLeases.find((lease) => lease <= longest && poolNeed(vlan, fixedHosts, lease).total <= capacity) ??
    null
  );
}
