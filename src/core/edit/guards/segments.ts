import * as z from 'zod';
import { type Draft, badInput, boxOf, equal, kinds, operation, pick } from '../../plan';
import {
  type Trust,
  type VlanGuards,
  hangsOnBindings,
  noVlanGuards,
  trustOf,
  vlanGuardOf,
} from '../../model/guards';
import { sightsIn, wantedTrust } from '../../rehearse';
import { setPortGuardFields } from './ports';
import { namesOf } from '../tree/operations';

/** What boxes guard in segments, what they have to trust for it, and what has to be entered by hand. */

const devices = z.array(z.string()).min(1, 'No box is chosen; choose at least one.').max(1000);
const vlans = z.array(z.string()).min(1, 'No segment is chosen; choose at least one.').max(1000);
const set = z.strictObject(kinds.vlanGuard.fields).omit({ device: true, vlan: true }).partial();

const words: Readonly<Record<keyof VlanGuards, string>> = {
  snooping: 'DHCP snooping',
  inspection: 'ARP inspection',
  sourceGuard: 'source guard',
  sourceGuard6: 'IPv6 source guard',
  raGuard: 'RA guard',
  dhcp6Guard: 'DHCPv6 guard',
  option82: 'option 82',
};
const GUARDS = Object.keys(words) as (keyof VlanGuards)[];
const said = (fields: Partial<VlanGuards>): string =>
  GUARDS.filter((key) => fields[key] !== undefined)
    .map((key) => `${words[key]} ${fields[key] ? 'on' : 'off'}`)
    .join(', ');

function setFields(draft: Draft, device: string, vlan: string, fields: Partial<VlanGuards>): void {
  const { name } = draft.need('device', device);
  draft.need('vlan', vlan);
  const known = vlanGuardOf(draft.plan, device, vlan);
  const before: VlanGuards = known ? pick(known, GUARDS) : noVlanGuards;
  const next = { ...before, ...fields };
  if (!boxOf(draft.plan, device)?.snooping && Object.values(fields).some((on) => on))
    throw badInput(
      `${name} cannot watch what its ports say; say under Gear & ports that it can, or choose another box.`,
      'devices',
    );
  // Source guard and option 82 are parts of watching leases.
  if (fields.snooping === false) Object.assign(next, { option82: false, sourceGuard: false });
  if ((fields.sourceGuard || fields.option82) && fields.snooping === undefined) next.snooping = true;
  if (fields.dhcp6Guard === false) next.sourceGuard6 = false;
  if (fields.sourceGuard6 && fields.dhcp6Guard === undefined) next.dhcp6Guard = true;
  if (equal(next, noVlanGuards)) {
    if (known) draft.remove('vlanGuard', known.id);
  } else if (known) draft.update('vlanGuard', known.id, next);
  else draft.insert('vlanGuard', { device, vlan, ...next });
}

interface Asked {
  readonly devices: readonly string[];
  readonly vlans: readonly string[];
  readonly set: Partial<VlanGuards>;
}
/** Sets guards at every box for every segment, and says so. */
function setAll(draft: Draft, { devices: boxes, vlans: segments, set: fields }: Asked): string {
  for (const device of boxes) for (const vlan of segments) setFields(draft, device, vlan, fields);
  const names = segments.map((id) => draft.need('vlan', id).name).join(', ');
  return `${namesOf(draft, boxes)}, ${names}: ${said(fields)}`;
}

/** Switches guards on or off, and nothing else: who is cut off by it is. */
export const setVlanGuards = operation('setVlanGuards', z.strictObject({ devices, vlans, set }), setAll);

const portsText = (n: number): string => (n === 1 ? '1 port' : `${n} ports`);
const addressesText = (n: number): string => (n === 1 ? '1 address' : `${n} addresses`);

/** Trusts the ports at which who is meant to speak in some segments may come in, and no others. */
function trust(draft: Draft, device: string, segments: readonly string[]): number {
  const { dhcp, arp, routers } = wantedTrust(draft.plan, device, segments);
  let changed = 0;
  for (const id of new Set([...dhcp, ...arp, ...routers])) {
    const known = trustOf(draft.plan, id);
    const wanted: Trust = {
      trustsDhcp: known.trustsDhcp || dhcp.has(id),
      trustsArp: known.trustsArp || arp.has(id),
      trustsRouters: known.trustsRouters || routers.has(id),
    };
    if (equal(wanted, known)) continue;
    setPortGuardFields(draft, id, wanted);
    changed++;
  }
  return changed;
}

/** The fixed addresses of segments that guards stop for want of a binding, each with the boxes that do. */
function unbound(
  draft: Draft,
  segments: Iterable<string>,
): { readonly device: string; readonly address: string }[] {
  const found = new Map<string, { readonly device: string; readonly address: string }>();
  for (const vlan of segments)
    for (const { record, stops } of sightsIn(draft.plan, vlan))
      for (const { device, guard } of stops)
        if (record !== null && hangsOnBindings(guard))
          found.set(`${device} ${record}`, { device, address: record });
  return [...found.values()];
}
/** Enters the fixed addresses that some boxes would stop, there and wherever else they are stopped. */
function bind(draft: Draft, boxes: readonly string[], segments: Iterable<string>): number {
  const all = unbound(draft, segments);
  const here = new Set(all.flatMap(({ device, address }) => (boxes.includes(device) ? [address] : [])));
  const missing = all.filter(({ address }) => here.has(address));
  for (const one of missing) draft.insert('binding', one);
  return missing.length;
}

export const bindFixed = operation('bindFixed', z.strictObject({ devices }), (draft, input) => {
  for (const device of input.devices) draft.need('device', device);
  const guarded = new Set([...draft.plan.vlanGuard.values()].map(({ vlan }) => vlan));
  const bound = bind(draft, input.devices, guarded);
  if (bound === 0) throw badInput('Every fixed address that is seen there is bound.', 'devices');
  return `${namesOf(draft, input.devices)}: ${addressesText(bound)} bound`;
});

/** Guards, the trust they need, and the bindings of fixed addresses, as one change: nobody is cut off who belongs there. */
export const switchOnGuards = operation(
  'switchOnGuards',
  z.strictObject({ devices, vlans, set }),
  (draft, input) => {
    const done = setAll(draft, input);
    let trusted = 0;
    for (const device of input.devices) trusted += trust(draft, device, input.vlans);
    const bound = bind(draft, input.devices, input.vlans);
    return `${done}; ${portsText(trusted)} trusted, ${addressesText(bound)} bound`;
  },
);

export const removeBinding = operation(
  'removeBinding',
  z.strictObject({ bindings: z.array(z.string()).min(1).max(1000) }),
  (draft, { bindings }) => {
    for (const id of bindings) draft.remove('binding', draft.need('binding', id).id);
    return bindings.length === 1 ? 'A binding removed' : `${bindings.length} bindings removed`;
  },
);
