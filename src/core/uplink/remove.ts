import type { Draft } from '../plan/draft';
import { dropDevice, dropUplink } from '../policy/remove';

/** Takes an uplink away with its forwards, and out of its zone. */
export function takeUplink(draft: Draft, uplink: string): void {
  for (const forward of [...draft.plan.forward.values()])
    if (forward.uplink === uplink) draft.remove('forward', forward.id);
  dropUplink(draft, uplink);
  draft.remove('uplink', uplink);
}

/** Takes away what hangs on a device that goes: its uplinks with their forwards, what it listens on, names it kept, rules. */
export function removeInternetOf(draft: Draft, device: string): void {
  for (const uplink of [...draft.plan.uplink.values()]) {
    if (uplink.device === device) {
      takeUplink(draft, uplink.id);
    } else if (uplink.updater === device) draft.update('uplink', uplink.id, { updater: null });
  }
  dropDevice(draft, device);
  for (const id of [...draft.plan.offer.group(device).keys()]) draft.remove('offer', id);
}

/** Takes away the forwards that lead to a network card that goes. */
export function removeForwardsTo(draft: Draft, item: string): void {
  for (const forward of [...draft.plan.forward.values()])
    if (forward.target === item) draft.remove('forward', forward.id);
}
