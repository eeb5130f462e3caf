import { type Device, type Interface, boxOf } from '../plan';
import { insertBox, insertCard } from '../edit';
import { repairName } from '../model/hosts';
import { type Model, blankPort, portsOf } from '../model/wiring';
import { writeAir } from './air';
import { plug, writeBundles, writeLinks, writeRoots } from './cables';
import { setStanding, writePorts } from './carried';
import { CORE, GATEWAY } from './design';
import type { KeyedDraft } from './keyed';
import { Names, numbered } from './names';
import { type NetworkInput, type Written, managementOf, segmentOf } from './network';
import type { Segment } from './segments';
import { classOf, isListed, things } from './things';

/** Writes the boxes of a design with their ports, what is plugged into them, and what every port carries. */

const SHORT = { switch: 'sw', 'access-point': 'ap' } as const;

function writeBox(
  draft: KeyedDraft,
  written: Written,
  key: string,
  device: Device,
  model: Model,
  place: string,
): void {
  const known = boxOf(draft.plan, device.id);
  if (!known || draft.isProposed('box', known.id))
    draft.under('boxes', `box ${key}`, () => insertBox(draft, device, model, place));
  written.devices.set(key, device);
  written.ports.set(key, new Map(portsOf(draft.plan, device.id).map((port) => [port.number, port])));
}

/** The address of a box in the segment from which boxes are looked after. */
function writeManagement(draft: KeyedDraft, key: string, device: Device, management: Segment): void {
  const item = draft.under('boxes', `card ${key}`, () => insertCard(draft, device.id));
  management.addresses?.write(`address ${key}`, item, 'infrastructure', 'static');
}

export function writeNetwork(input: NetworkInput): Written {
  const { draft, brief, hardware, segments, gateway } = input;
  const written: Written = { devices: new Map(), ports: new Map() };
  const names = new Names(draft);
  const management = managementOf(segments);
  writeBox(draft, written, GATEWAY, gateway, hardware.gateway.model, brief.places[0]!.name);
  if (input.core) writeBox(draft, written, CORE, input.core, hardware.core!, brief.places[0]!.name);
  const all = [
    ...hardware.switches.map((one) => ({ ...one, kind: 'switch' as const })),
    ...hardware.accessPoints.map((one) => ({ ...one, kind: 'access-point' as const })),
  ];
  for (const { key, model, place: at, kind } of all) {
    const stem = `${SHORT[kind]}-${(repairName(at.name) ?? 'place').slice(0, 40).replace(/-+$/, '')}`;
    const device = draft.under('boxes', key, () =>
      draft.insert('device', {
        name: names.give(key, numbered(stem)),
        kind: model.vlanAware || kind !== 'switch' ? kind : 'unmanaged-switch',
        firewall: 'unknown',
      }),
    );
    writeBox(draft, written, key, device, model, at.name);
    if (model.vlanAware) writeManagement(draft, key, device, management);
  }
  const cards = writeThings(input, written, names);
  writeAir(input, written, cards);
  writePorts(input, written);
  setStanding(draft, input, written);
  writeLinks(input, written);
  writeBundles(input, written);
  writeRoots(input, written);
  return written;
}

/** Every thing that is listed one by one: its card, its address, its socket and its cable. Returns the cards on the air. */
function writeThings(input: NetworkInput, written: Written, names: Names): Map<string, Interface[]> {
  const { draft, brief, hardware } = input;
  const onAir = new Map<string, Interface[]>();
  const sockets = new Map<string, { readonly box: string; readonly port: number }>();
  for (const { key, plugged } of hardware.switches)
    for (const [port, { for: who }] of plugged)
      if (who && 'need' in who) sockets.set(`${who.need.id} ${who.number}`, { box: key, port });
  const assignment = brief.site.fixed === 'reservation' ? 'reservation' : 'static';
  for (const need of brief.needs.filter(isListed)) {
    const segment = segmentOf(input, need);
    const { kind, fixed } = things[need.thing];
    for (let n = 1; n <= need.count; n++) {
      const key = `thing ${need.id} ${n}`;
      const name = names.give(key, names.byPattern(segment.vlan.code, kind));
      const device = draft.under('things', key, () =>
        draft.insert('device', { name, kind, firewall: 'unknown' }),
      );
      const card = draft.under('things', `card ${key}`, () => insertCard(draft, device.id));
      if (fixed)
        segment.addresses?.write(
          `address ${key}`,
          card,
          'fixed',
          assignment === 'reservation' && card.mac === null ? 'static' : assignment,
        );
      if (need.link === 'wireless') {
        onAir.set(segment.key, [...(onAir.get(segment.key) ?? []), card]);
        continue;
      }
      const at = sockets.get(`${need.id} ${n}`);
      if (!at) continue;
      const socket = draft.under('things', `socket ${key}`, () =>
        draft.insert('port', { ...blankPort, device: device.id, poeClass: classOf(need) }),
      );
      plug(draft, written, at, socket, `cable ${key}`);
    }
  }
  return onAir;
}
