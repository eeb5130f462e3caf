import { type Plan, type Radio, type Ssid, deriveBy } from '../../plan';
import { signalsOn } from './air';
import { shared } from './channels';
import { clashesOf, foreignAt, spanOfForeign, spanOfRadio } from './clashes';
import { KEEPS_SILENT } from './levels';

/** What beacons take of a channel’s time. */

/** A time unit is 1024 µs (IEEE 802.11-2020 clause 3.1). */
const TIME_UNIT = 1024;
/**
 * Octets of a beacon besides its name: header 24, fixed fields 12, check sequence 4, and about 220 of elements (rates,
 * country, security, what later generations can), as a usual access point sends them.
 */
const BEACON_OCTETS = 260;

/**
 * How long a beacon with a name of so many octets is on the air, in µs. Up to 11 Mbit/s (at 2.4 GHz) with the long preamble of 192 µs (IEEE 802.11-2020
 * clause 16.2.2), else OFDM: 20 µs and symbols of 4 µs with 16 + 6 bits more (clause 17.4.3).
 */
export function beaconTime(name: number, rate: number): number {
  const octets = BEACON_OCTETS + name;
  const spread = rate === 1 || rate === 2 || rate === 5.5 || rate === 11;
  if (spread) return 192 + (8 * octets) / rate;
  return 20 + 4 * Math.ceil((16 + 6 + 8 * octets) / (4 * rate));
}

/** The lowest rate a band knows: 1 Mbit/s at 2.4 GHz, 6 elsewhere. */
const rateOf = ({ minimumRate }: Pick<Ssid, 'minimumRate'>, band: Radio['band']): number => {
  const rate = Number(minimumRate);
  return band === '2.4' ? rate : rate < 6 || rate === 11 ? 6 : rate;
};

/** What a radio’s names cost: how many there are, and what their beacons take of its channel, 0 to 1. */
interface Beacons {
  readonly names: number;
  readonly share: number;
}
const beaconsBy = deriveBy((plan, id: string): Beacons => {
  const radio = plan.radio.get(id)!;
  const sent = signalsOn(plan, radio);
  const time = sent.reduce((sum, ssid) => sum + beaconTime(ssid.octets, rateOf(ssid, radio.band)), 0);
  return { names: sent.length, share: time / (radio.interval * TIME_UNIT) };
});
/** Each name sends a beacon every interval. */
export const beaconsOf = (plan: Plan, { id }: Radio): Beacons => beaconsBy(plan, id);
export const beaconShare = (plan: Plan, radio: Radio): number => beaconsOf(plan, radio).share;

/** What a network of somebody else is taken to send: one name every 100 TU, at the lowest rate of its band. */
const foreignShare = ({ band }: Radio): number => beaconTime(0, band === '2.4' ? 1 : 6) / (100 * TIME_UNIT);

/** The share of its channel that beacons take for a radio: its own, and those of everybody it hears on it. 0 without a channel. */
export function beaconsAt(plan: Plan, radio: Radio): number {
  const span = spanOfRadio(radio);
  if (!span || !radio.enabled) return 0;
  const own = clashesOf(plan, radio).map((clash) => plan.radio.get(clash.radio)!);
  const foreign = foreignAt(plan, radio.device, radio.band).filter((one) => {
    const theirs = spanOfForeign(one);
    return theirs !== null && shared(span, theirs) > 0 && one.dbm >= KEEPS_SILENT;
  });
  return (
    beaconShare(plan, radio) +
    own.reduce((sum, other) => sum + beaconShare(plan, other), 0) +
    foreign.length * foreignShare(radio)
  );
}
