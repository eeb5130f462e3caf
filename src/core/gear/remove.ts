import type { Draft } from '../plan/draft';
import { dropQuestions } from '../questions/operations';
import { removeTreesOf } from '../tree/remove';
import { removeInternetOf } from '../uplink/remove';
import { portsOf } from '../switching/wiring';
import { type Carried, carriedOf, vlansIn, without } from './roles';

/** Takes a device's ports away with their cables, and its uplinks; used when the device goes. */
export function removeGear(draft: Draft, device: string): void {
  const ports = portsOf(draft.plan, device);
  const own = new Set(ports.map((port) => port.id));
  removeInternetOf(draft, device);
  removeTreesOf(draft, device, own);
  dropQuestions(
    draft,
    ({ fromDevice, toDevice, fromPort }) =>
      fromDevice === device || toDevice === device || (fromPort !== null && own.has(fromPort)),
  );
  for (const cable of [...draft.plan.cable.values()])
    if (own.has(cable.from) || own.has(cable.to)) draft.remove('cable', cable.id);
  for (const port of ports) draft.remove('port', port.id);
  for (const id of [...draft.plan.aggregate.group(device).keys()]) draft.remove('aggregate', id);
  for (const box of [...draft.plan.box.values()]) {
    if (box.controller === device) draft.update('box', box.id, { controller: null });
    if (box.device === device) draft.remove('box', box.id);
  }
}

/** Takes a VLAN out of every port and profile that speaks of it. */
export function removeVlanFromPorts(draft: Draft, vlan: string): void {
  const change = (table: 'port' | 'profile', id: string, from: Carried) => {
    if (vlansIn(from).includes(vlan)) draft.update(table, id, without(from, vlan));
  };
  for (const profile of [...draft.plan.profile.values()]) change('profile', profile.id, carriedOf(profile));
  for (const port of [...draft.plan.port.values()]) change('port', port.id, carriedOf(port));
}
