import type { Draft } from '../plan/draft';
import { dropDevice, dropUplink } from '../policy/remove';

/** Takes a tunnel away, and out of its zone. */
export function takeTunnel(draft: Draft, tunnel: string): void {
  for (const zone of [...draft.plan.zone.values()])
    if (zone.tunnels.includes(tunnel))
      draft.update('zone', zone.id, { tunnels: zone.tunnels.filter((id) => id !== tunnel) });
  draft.remove('tunnel', tunnel);
}

/** Takes an uplink away with its forwards and the telephone boxes kept for it, and out of its zone and its tunnels. */
export function takeUplink(draft: Draft, uplink: string): void {
  for (const tunnel of [...draft.plan.tunnel.values()])
    if (tunnel.uplink === uplink) draft.update('tunnel', tunnel.id, { uplink: null });
  for (const box of [...draft.plan.voiceBox.values()])
    if (box.uplink === uplink) draft.remove('voiceBox', box.id);
  for (const forward of [...draft.plan.forward.values()])
    if (forward.uplink === uplink) draft.remove('forward', forward.id);
  dropUplink(draft, uplink);
  draft.remove('uplink', uplink);
}

/**
 * Takes away what hangs on a device that goes: its uplinks with their forwards, routes, tunnels, what it
 * listens on, names it kept, rules.
 */
export function removeInternetOf(draft: Draft, device: string): void {
  for (const uplink of [...draft.plan.uplink.values()]) {
    if (uplink.device === device) {
      takeUplink(draft, uplink.id);
    } else if (uplink.updater === device) draft.update('uplink', uplink.id, { updater: null });
  }
  for (const table of ['route', 'translation', 'voiceBox'] as const)
    for (const record of [...draft.plan[table].values()])
      if (record.device === device) draft.remove(table, record.id);
  for (const tunnel of [...draft.plan.tunnel.values()])
    if (tunnel.device === device) takeTunnel(draft, tunnel.id);
  dropDevice(draft, device);
  for (const id of [...draft.plan.offer.group(device).keys()]) draft.remove('offer', id);
}

/** Takes away the forwards that lead to a network card that goes. */
export function removeForwardsTo(draft: Draft, item: string): void {
  for (const forward of [...draft.plan.forward.values()])
    if (forward.target === item) draft.remove('forward', forward.id);
}
