import { type Draft, type Party, type Vlan, Refusal, boxOf, putBehind, vlansOf } from '../../plan';
import { purposeDefaults } from '../../model/segments';
import { bridgeRecordOf, formatVids, parseVids } from '../../model/tree';
import { proposeCode, proposeColour, proposeVid } from './propose';

export const withoutId = <R extends { readonly id: string }>(record: R): Omit<R, 'id'> => {
  const { id: _id, ...rest } = record;
  return rest;
};

/** A segment like another, with half of its people and things; what speaks of the one speaks of both. */
export function twinOf(draft: Draft, vlan: Vlan): Vlan {
  const { plan } = draft;
  const vid = proposeVid(plan, vlan.lan);
  if (vid === null) throw new Refusal('no-room', 'All VLAN ids of this LAN are in use.');
  const name = `${vlan.name} upper`;
  const half = (count: number) => Math.ceil(count / 2);
  const { devices, transient } = vlan;
  draft.update('vlan', vlan.id, {
    devices: devices - half(devices),
    transient: transient && {
      ...transient,
      present: transient.present - half(transient.present),
      arrivalsPerHour: transient.arrivalsPerHour - half(transient.arrivalsPerHour),
    },
  });
  const twin = draft.insert('vlan', {
    ...withoutId(vlan),
    vid,
    name,
    devices: half(devices),
    transient: transient && {
      ...transient,
      present: half(transient.present),
      arrivalsPerHour: half(transient.arrivalsPerHour),
    },
    code: proposeCode(plan, vlan.lan, purposeDefaults[vlan.purpose].code, name),
    colour: proposeColour(plan, vlan.colour),
  });
  putBehind(draft, 'vlan', vlansOf(draft.plan), twin.id, vlan.id);
  for (const zone of plan.zone.values())
    if (zone.vlans.includes(vlan.id))
      draft.update('zone', zone.id, {
        vlans: zone.vlans.flatMap((id) => (id === vlan.id ? [id, twin.id] : [id])),
      });
  const both = (parties: readonly Party[]): Party[] =>
    parties.flatMap((party) =>
      'vlan' in party && party.vlan === vlan.id ? [party, { vlan: twin.id }] : [party],
    );
  const speaks = (parties: readonly Party[]) =>
    parties.some((party) => 'vlan' in party && party.vlan === vlan.id);
  for (const { id, from, to } of plan.rule.values())
    if (speaks(from) || speaks(to)) draft.update('rule', id, { from: both(from), to: both(to) });
  for (const guard of plan.vlanGuard.values())
    if (guard.vlan === vlan.id) draft.insert('vlanGuard', { ...withoutId(guard), vlan: twin.id });
  for (const telephony of plan.telephony.by('vlan', vlan.id))
    draft.insert('telephony', { ...withoutId(telephony), vlan: twin.id });
  shareTrees(draft, vlan.vid, vid);
  return twin;
}

/** The VLAN is in the trees that the other is in; where boxes grow one for each VLAN, in one that is set alike. */
function shareTrees(draft: Draft, like: number, vid: number): void {
  const { plan } = draft;
  const growsEach = (device: string) =>
    (bridgeRecordOf(plan, device)?.mode ?? boxOf(plan, device)?.spanningTree) === 'rstp-per-vlan';
  for (const item of plan.instance.values()) {
    const listed = parseVids(item.vids);
    if (growsEach(item.device)) {
      if (item.number === like) draft.insert('instance', { ...withoutId(item), number: vid });
    } else if (listed?.has(like)) draft.update('instance', item.id, { vids: formatVids([...listed, vid]) });
  }
  for (const item of plan.stpPort.values())
    if (item.instance === like && growsEach(plan.port.get(item.port)!.device))
      draft.insert('stpPort', { ...withoutId(item), instance: vid });
}
