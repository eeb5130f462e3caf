import {
  type Band,
  type Device,
  type Plan,
  type Radio,
  type Ssid,
  derive,
  deriveBy,
  memo,
  groupBy,
  pick,
  siteOf,
  bands,
  interfacesOf,
} from '../../plan';
import type { Collection } from '../../plan';

/** What is on the air: networks in order, the access points, and which names each radio sends. */

const inOrder = memo((ssids: Collection<Ssid>) =>
  [...ssids.values()].sort((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : a.id < b.id ? -1 : 1)),
);
/** The wireless networks in the order the user gave them. */
export const ssidsOf = (plan: Plan): readonly Ssid[] => inOrder(plan.ssid);

const byBand = memo((group: ReadonlyMap<string, Radio>): readonly Radio[] =>
  [...group.values()].sort((a, b) => bands.indexOf(a.band) - bands.indexOf(b.band) || (a.id < b.id ? -1 : 1)),
);
/** The radios of a device by band, rising. */
export const radiosOf = (plan: Plan, device: string): readonly Radio[] => byBand(plan.radio.group(device));

/** The devices with a radio. */
export const withRadio = derive((plan): readonly string[] => [
  ...new Set([...plan.radio.values()].map(({ device }) => device)),
]);

/** The access points by name: every device with a radio, and those that are called so. */
export const accessPoints = derive((plan): readonly Device[] => {
  const found = new Set(withRadio(plan));
  for (const { id, kind } of plan.device.values()) if (kind === 'access-point') found.add(id);
  return [...found]
    .map((id) => plan.device.get(id)!)
    .sort((a, b) => a.name.localeCompare(b.name, undefined, { numeric: true }) || (a.id < b.id ? -1 : 1));
});

/** Is a network meant for a device? */
export const isMeantFor = ({ on }: Pick<Ssid, 'on'>, device: string): boolean =>
  on.length === 0 || on.includes(device);

/** May a network secured like this be sent at 6 GHz? WPA3 or OWE only, without a way back (IEEE 802.11-2024, 12.12). */
export const isForSix = (security: Ssid['security']): boolean =>
  security === 'owe' || security.startsWith('wpa3-');
/** The bands in which a network can be sent at all. */
const sendable = ({ bands: wanted, security }: Pick<Ssid, 'bands' | 'security'>): readonly Band[] =>
  wanted.filter((band) => band !== '6' || isForSix(security));

const among = <S extends Pick<Ssid, 'bands' | 'security' | 'on'>>(
  names: readonly S[],
  { device, band, enabled }: Radio,
): readonly S[] =>
  enabled ? names.filter((ssid) => sendable(ssid).includes(band) && isMeantFor(ssid, device)) : [];
/** The names that a radio sends. */
export const namesOn = (plan: Plan, radio: Radio): readonly Ssid[] => among(ssidsOf(plan), radio);

const encoder = new TextEncoder();
/** What names are on the air, whatever they are called. */
const signals = derive((plan) =>
  ssidsOf(plan).map((ssid) => ({
    ...pick(ssid, ['bands', 'security', 'on', 'minimumRate', 'cannotWait']),
    octets: encoder.encode(ssid.name).length,
  })),
);
/** The same of one radio: another name of the same length changes nothing. */
export const signalsOn = (plan: Plan, radio: Radio) => among(signals(plan), radio);

/** The bands in which a device sends a network. */
export const bandsSent = (plan: Plan, device: string, ssid: Ssid): readonly Band[] =>
  isMeantFor(ssid, device)
    ? sendable(ssid).filter((band) =>
        radiosOf(plan, device).some((radio) => radio.enabled && radio.band === band),
      )
    : [];

/** The networks that a device sends by any of its radios. */
export const networksAt = deriveBy((plan, device: string): readonly Ssid[] =>
  ssidsOf(plan).filter((ssid) => bandsSent(plan, device, ssid).length > 0),
);

/** Does a device really send a network? */
export const sends = (plan: Plan, device: string, { id }: Pick<Ssid, 'id'>): boolean =>
  networksAt(plan, device).some((one) => one.id === id);

/** The access points that really send a network, by name. */
export const sentBy = (plan: Plan, ssid: Ssid): readonly Device[] =>
  accessPoints(plan).filter(({ id }) => sends(plan, id, ssid));

/** Where a device hangs. */
export const spotOf = (plan: Plan, device: string) => plan.spot.by('device', device)[0];

/** Whose rules of the air hold. */
export const countryOf = (plan: Plan): string => siteOf(plan).country;

/** The access point a device without a cable is taken to be at: the first that sends the network it joins; null for none. */
export function accessPointOf(
  plan: Plan,
  device: string,
): { readonly device: string; readonly ssid: string } | null {
  for (const { joins } of interfacesOf(plan, device)) {
    const ssid = joins === null ? undefined : plan.ssid.get(joins);
    const [first] = ssid ? sentBy(plan, ssid) : [];
    if (ssid && first) return { device: first.id, ssid: ssid.id };
  }
  return null;
}

/** Who is at an access point without a cable: devices by what they join. */
export const joinersOf = derive((plan): ReadonlyMap<string, readonly { device: string; ssid: string }[]> => {
  const devices = new Set(
    [...plan.interface.values()].flatMap(({ joins, device }) => (joins ? [device] : [])),
  );
  const placed = [...devices].flatMap((device) => {
    const at = accessPointOf(plan, device);
    return at ? [{ at: at.device, device, ssid: at.ssid }] : [];
  });
  return groupBy(placed, ({ at }) => at);
});
