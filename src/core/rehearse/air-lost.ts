import { type Device, type Plan, type Ssid } from '../plan';
import { bridgeAt } from '../model/switching';
import { heardAt, radiosOf, sentBy, spotOf, ssidsOf } from '../model/wireless';
import { homeOf, isHomeAt } from './classes';
import { landsAt } from './entry';
import { insideState } from './frames';

/** What goes from the air with a fault: networks at access points, and who is heard instead where those hang. */

/** A network that is of no use any more at some access points. */
export interface AirLost {
  readonly ssid: Ssid;
  readonly at: readonly Device[];
  /** It works nowhere any more. */
  readonly everywhere: boolean;
  /** Where those hang whose places are known: who is still heard with this network there, at −75 dBm or better. */
  readonly instead: readonly { readonly at: Device; readonly heard: Device | null }[];
}

/** Good enough to go on with. */
const STILL_USED = -75;

/** Does a network at an access point lead to the router of its segment, or where there is none into its segment at least? */
function works(plan: Plan, ssid: Ssid, device: string): boolean {
  const { vlan } = landsAt(plan, { ssid: ssid.id, at: device });
  if (!vlan) return false;
  const state = insideState(plan, bridgeAt(plan, device), vlan.id);
  return isHomeAt(homeOf(plan, vlan.id), state);
}

/** The loudest of others that still send a network where an access point hangs; null for none that is loud enough. */
function heardInstead(plan: Plan, ssid: Ssid, at: Device, left: readonly Device[]): Device | null {
  const heard = left.flatMap((other) =>
    radiosOf(plan, other.id)
      .filter(({ band, enabled }) => enabled && ssid.bands.includes(band))
      .map(({ band }) => ({ other, ...heardAt(plan, at.id, other.id, band) }))
      .filter(({ dbm, known }) => known !== 'assumed' && dbm >= STILL_USED),
  );
  return heard.sort((a, b) => b.dbm - a.dbm)[0]?.other ?? null;
}

/** What was of use on the air before and is not with the faults. */
export function airLost(plan: Plan, broken: Plan): readonly AirLost[] {
  return ssidsOf(plan).flatMap((ssid): AirLost[] => {
    const before = sentBy(plan, ssid).filter(({ id }) => works(plan, ssid, id));
    const left = before.filter(({ id }) => works(broken, ssid, id));
    const at = before.filter((device) => !left.includes(device));
    if (at.length === 0) return [];
    const placed = at.filter(({ id }) => spotOf(plan, id) !== undefined);
    return [
      {
        ssid,
        at,
        everywhere: left.length === 0,
        instead: placed.map((device) => ({ at: device, heard: heardInstead(plan, ssid, device, left) })),
      },
    ];
  });
}
