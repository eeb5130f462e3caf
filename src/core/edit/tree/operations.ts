import * as z from 'zod';
import { carryEverywhere } from '../gear/carry';
import {
  boxOf,
  type Draft,
  equal,
  operation,
  siteOf,
  type Box,
  type BridgeRecord,
  kinds,
  badInput,
  fieldName,
  portTitle,
  wireText,
} from '../../plan';
import {
  treesOf,
  formatVids,
  parseVids,
  type StpPortSettings,
  bridgeRecordOf,
  factoryStpPort,
  instanceOf,
  instancesOf,
  settingsOf,
  stpPortRecordsOf,
} from '../../model/tree';

/** Settings of spanning trees and rings: at boxes, of instances, and at ports. */

function boxIn(draft: Draft, device: string): Box {
  const { name } = draft.need('device', device);
  const box = boxOf(draft.plan, device);
  if (!box) throw badInput(`${name} has no ports recorded; equip it under Gear & ports first.`, 'devices');
  return box;
}

/** Sets fields of a box; makes the record when it is the first that differs from a box as it comes. */
export function setBridgeFields(
  draft: Draft,
  device: string,
  set: Partial<Omit<BridgeRecord, 'id' | 'device'>>,
): void {
  const box = boxIn(draft, device);
  const settings = { ...settingsOf(draft.plan, box), ...set };
  if (!box.vlanAware && settings.mode !== 'none' && settings.mode !== 'rstp')
    throw badInput(
      `${draft.need('device', device).name} does not understand VLANs; it can run RSTP or nothing.`,
      'mode',
    );
  for (const id of settings.ringPorts)
    if (draft.need('port', id).device !== device)
      throw badInput('A ring port has to be a port of the box itself; choose two of its own.', 'ringPorts');
  const known = bridgeRecordOf(draft.plan, device);
  if (known) draft.update('bridge', known.id, set);
  else draft.insert('bridge', { ...settings, device });
}

const said = (set: Readonly<Record<string, unknown>>): string =>
  Object.entries(set)
    .map(([field, value]) => `${fieldName('bridge', field)} ${wireText(value)}`)
    .join(', ');

/** Segments to be carried on every way first, so that whatever the tree blocks afterwards cuts none of them. */
const carry = z.array(z.string()).default([]);
function carryAll(draft: Draft, vlans: readonly string[]): string {
  const vids = vlans.map((id) => draft.need('vlan', id).vid).join(', ');
  for (const vlan of vlans) carryEverywhere(draft, vlan);
  return vids ? `; VLAN ${vids} on every way` : '';
}

export const setBridge = operation(
  'setBridge',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No box is chosen; choose at least one.'),
    set: z.strictObject(kinds.bridge.fields).omit({ device: true }).partial(),
    carry,
  }),
  (draft, { devices, set, carry: vlans }) => {
    for (const device of devices) setBridgeFields(draft, device, set);
    const ports = set.ringPorts?.map((id) => portTitle(draft.plan, draft.need('port', id)));
    return `${namesOf(draft, devices)}: ${said(ports ? { ...set, ringPorts: ports } : set)}${carryAll(draft, vlans)}`;
  },
);

export const namesOf = (draft: Draft, devices: readonly string[]): string =>
  devices.map((id) => draft.need('device', id).name).join(', ');

/** Guards that would shut out a root which now is where they look, or a box that now speaks. */
function dropHinderingGuards(draft: Draft, shutBefore: ReadonlySet<string>): string {
  const opened: string[] = [];
  const open = (port: string) => {
    const record = stpPortRecordsOf(draft.plan, port).find(({ instance }) => instance === 0);
    if (record) draft.update('stpPort', record.id, { guard: 'none' });
    opened.push(portTitle(draft.plan, draft.need('port', port)));
  };
  for (const port of treesOf(draft.plan).shut) if (!shutBefore.has(port)) open(port);
  for (;;) {
    const common = treesOf(draft.plan).grown.find(({ kind }) => kind === 'common');
    const hindering = common?.topology.ends.findIndex(
      ({ restricted }, end) => restricted && common.tree.roles[end] === 'alternate',
    );
    if (!common || hindering === undefined || hindering < 0) break;
    for (const port of common.ports[hindering]!.ports) open(port);
  }
  return opened.length > 0 ? `; no guard at ${opened.join(', ')}` : '';
}

/** Opens a loop: RSTP at boxes that run nothing, and the VLANs carried on every way, so that no tree cuts them. */
export const turnOnRstp = operation(
  'turnOnRstp',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No box is chosen; choose at least one.'),
    carry,
  }),
  (draft, { devices, carry: vlans }) => {
    const { shut } = treesOf(draft.plan);
    for (const device of devices) {
      const box = boxIn(draft, device);
      if (!box.vlanAware)
        throw badInput(`${draft.need('device', device).name} cannot run a spanning tree.`, 'devices');
      draft.update('box', box.id, { spanningTree: 'rstp' });
      if (bridgeRecordOf(draft.plan, device)) setBridgeFields(draft, device, { mode: 'rstp' });
    }
    const opened = dropHinderingGuards(draft, shut);
    return `RSTP on at ${namesOf(draft, devices)}${opened}${carryAll(draft, vlans)}`;
  },
);

/** The primary root of a tree and the one that takes over: priorities 4096 and 8192 (IEEE 802.1Q-2022 clause 13.26.3). */
export const placeRoots = operation(
  'placeRoots',
  z.strictObject({
    primary: z.string(),
    secondary: z.string().nullable(),
    /** 0 for the common tree. */
    instance: kinds.instance.fields.number.or(z.literal(0)).default(0),
    carry,
  }),
  (draft, { primary, secondary, instance, carry: vlans }) => {
    const { shut } = treesOf(draft.plan);
    if (primary === secondary)
      throw badInput('The root and the one that takes over must be two boxes; choose another.', 'secondary');
    const put = (device: string, priority: number) => {
      if (instance === 0) return setBridgeFields(draft, device, { priority });
      const known = instanceOf(draft.plan, device, instance);
      if (!known)
        throw badInput(`${draft.need('device', device).name} has no instance ${instance}.`, 'instance');
      draft.update('instance', known.id, { priority });
    };
    // Whoever stood above either of them steps back to what it was as it came.
    for (const box of [...draft.plan.box.values()]) {
      const { device } = box;
      if (device === primary || device === secondary) continue;
      const { mode, priority } = settingsOf(draft.plan, box);
      if (mode === 'none') continue;
      const own = instanceOf(draft.plan, device, instance);
      if (instance === 0 && priority < 12_288) setBridgeFields(draft, device, { priority: 32_768 });
      if (own && own.priority < 12_288) draft.update('instance', own.id, { priority: 32_768 });
    }
    put(primary, 4096);
    if (secondary !== null) put(secondary, 8192);
    const opened = dropHinderingGuards(draft, shut);
    const tree = instance === 0 ? 'the tree' : `instance ${instance}`;
    return `Root of ${tree}: ${draft.need('device', primary).name}${secondary === null ? '' : `, then ${draft.need('device', secondary).name}`}${opened}${carryAll(draft, vlans)}`;
  },
);

/** Makes or changes an instance at several boxes; `vids` as typed. */
export const setInstance = operation(
  'setInstance',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No box is chosen; choose at least one.'),
    number: kinds.instance.fields.number,
    vids: z.string().optional(),
    priority: kinds.instance.fields.priority.optional(),
  }),
  (draft, { devices, number, vids, priority }) => {
    const listed = vids === undefined ? undefined : parseVids(vids);
    if (listed === null)
      throw badInput(`“${vids}” is no list of VLAN ids; write ids from 1 to 4094 like 10-20,99.`, 'vids');
    const set = {
      ...(listed === undefined ? {} : { vids: formatVids(listed) }),
      ...(priority === undefined ? {} : { priority }),
    };
    for (const device of devices) {
      boxIn(draft, device);
      const all = instancesOf(draft.plan, device);
      const known = all.find((item) => item.number === number);
      if (listed)
        for (const other of all) {
          if (other.number === number) continue;
          const left = [...(parseVids(other.vids) ?? [])].filter((vid) => !listed.has(vid));
          const text = formatVids(left);
          // A VLAN is in one instance.
          if (text !== other.vids) draft.update('instance', other.id, { vids: text });
        }
      if (known) draft.update('instance', known.id, set);
      else draft.insert('instance', { device, number, vids: '', priority: 32_768, ...set });
    }
    return `${namesOf(draft, devices)}: instance ${number}, ${said(set) || 'no VLANs yet'}`;
  },
);

export const removeInstance = operation(
  'removeInstance',
  z.strictObject({ devices: z.array(z.string()).min(1), number: z.number() }),
  (draft, { devices, number }) => {
    for (const device of devices)
      for (const { id } of instancesOf(draft.plan, device).filter((item) => item.number === number))
        draft.remove('instance', id);
    return `${namesOf(draft, devices)}: no instance ${number}`;
  },
);

/** Gives boxes the region of another: its name, its revision and its map of VLANs. */
export const likeRegionOf = operation(
  'likeRegionOf',
  z.strictObject({ from: z.string(), devices: z.array(z.string()).min(1), carry }),
  (draft, { from, devices, carry: vlans }) => {
    const { region: named, revision } = settingsOf(draft.plan, boxIn(draft, from));
    // Without a name every box is a region of its own.
    const region = named || siteOf(draft.plan).name.slice(0, 32);
    if (!named) setBridgeFields(draft, from, { region });
    const wanted = instancesOf(draft.plan, from).map(({ number, vids }) => ({ number, vids }));
    for (const device of devices) {
      setBridgeFields(draft, device, { mode: 'mst', region, revision });
      const had = instancesOf(draft.plan, device);
      for (const item of had)
        if (!wanted.some(({ number }) => number === item.number)) draft.remove('instance', item.id);
      for (const { number, vids } of wanted) {
        const known = had.find((item) => item.number === number);
        if (!known) draft.insert('instance', { device, number, vids, priority: 32_768 });
        else if (known.vids !== vids) draft.update('instance', known.id, { vids });
      }
    }
    return `${namesOf(draft, devices)}: the region of ${draft.need('device', from).name}${carryAll(draft, vlans)}`;
  },
);

/** Sets fields of a port in a tree; what is as it comes needs no record. */
export function setStpPortFields(
  draft: Draft,
  port: string,
  instance: number,
  set: Partial<StpPortSettings>,
  /** Who sets many ports looks at the plan as it was before the first. */
  plan = draft.plan,
): void {
  draft.need('port', port);
  const known = stpPortRecordsOf(plan, port).find((item) => item.instance === instance);
  const { cost, priority, edge, guard } = { ...(known ?? factoryStpPort), ...set };
  const next = { cost, priority, edge, guard };
  if (equal(next, factoryStpPort)) {
    if (known) draft.remove('stpPort', known.id);
  } else if (known) draft.update('stpPort', known.id, next);
  else draft.insert('stpPort', { ...next, port, instance });
}

export const setStpPort = operation(
  'setStpPort',
  z.strictObject({
    ports: z.array(z.string()).min(1, 'No port is chosen; choose at least one.'),
    instance: kinds.stpPort.fields.instance.default(0),
    set: z.strictObject(kinds.stpPort.fields).omit({ port: true, instance: true }).partial(),
    carry,
  }),
  (draft, { ports, instance, set, carry: vlans }) => {
    const { plan } = draft;
    for (const port of new Set(ports)) setStpPortFields(draft, port, instance, set, plan);
    const titles = ports.map((port) => portTitle(draft.plan, draft.need('port', port))).join(', ');
    return `${titles}: ${said(set)}${instance === 0 ? '' : ` in instance ${instance}`}${carryAll(draft, vlans)}`;
  },
);
