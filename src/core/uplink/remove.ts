import type { Draft } from '../plan/draft';
import { dropDevice, dropTunnel, dropUplink } from '../policy/remove';

/** Takes a tunnel away, and out of its zone. */
export function takeTunnel(draft: Draft, tunnel: string): void {
  dropTunnel(draft, tunnel);
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

/** Takes away what makes a device a router: its uplinks with their forwards, tunnels, routes and translations. */
export function takeRouting(draft: Draft, device: string): void {
  const mine = <R extends { readonly device: string }>(records: Iterable<R>): R[] =>
    [...records].filter((record) => record.device === device);
  for (const { id } of mine(draft.plan.uplink.values())) takeUplink(draft, id);
  for (const { id } of mine(draft.plan.tunnel.values())) takeTunnel(draft, id);
  for (const table of ['route', 'translation'] as const)
    for (const { id } of mine<{ readonly device: string; readonly id: string }>(draft.plan[table].values()))
      draft.remove(table, id);
}

/** Takes away what hangs on a device that goes: its routing, what it listens on, names it kept, rules. */
export function removeInternetOf(draft: Draft, device: string): void {
  takeRouting(draft, device);
  for (const uplink of [...draft.plan.uplink.values()])
    if (uplink.updater === device) draft.update('uplink', uplink.id, { updater: null });
  for (const box of [...draft.plan.voiceBox.values()])
    if (box.device === device) draft.remove('voiceBox', box.id);
  dropDevice(draft, device);
  for (const id of [...draft.plan.offer.group(device).keys()]) draft.remove('offer', id);
}

/** Takes away the translations of a subnet that goes. */
export function removeTranslationsOf(draft: Draft, subnet: string): void {
  for (const translation of [...draft.plan.translation.values()])
    if (translation.subnet === subnet) draft.remove('translation', translation.id);
}

/** Uplinks whose outside stands in a segment that goes face a provider again. */
export function leaveSegment(draft: Draft, vlan: string): void {
  for (const uplink of [...draft.plan.uplink.values()])
    if (uplink.segment === vlan) draft.update('uplink', uplink.id, { segment: null });
}

/** Takes away the forwards that lead to a network card that goes. */
export function removeForwardsTo(draft: Draft, item: string): void {
  for (const forward of [...draft.plan.forward.values()])
    if (forward.target === item) draft.remove('forward', forward.id);
}
