import { type Port, interfacesOf } from '../plan';
import { type Carried, access, adding, carries, parked, trunk, uplinkRole } from '../model/wiring';
import { airVlans } from './air';
import { plug } from './cables';
import { CORE, GATEWAY, type SwitchDesign, type Wanted } from './design';
import { insideGroups, placeOf } from './gather';
import { linePorts } from './hardware';
import type { KeyedDraft } from './keyed';
import { type NetworkInput, type Written, managementOf, segmentOf } from './network';
import type { World } from './things';

/** What every port of a proposal carries. */

/** The VLANs a switch needs of the network: those of what is plugged in, and its own. */
export function ownVlans(input: NetworkInput, design: SwitchDesign): Set<string> {
  const found = new Set([managementOf(input.segments).vlan.id]);
  for (const { for: who } of design.plugged.values()) {
    if (!who) continue;
    if ('need' in who) found.add(segmentOf(input, who.need).vlan.id);
    else for (const vlan of airVlans(input, who.accessPoint)) found.add(vlan);
  }
  return found;
}

const setCarried = (draft: KeyedDraft, port: Port | undefined, carried: Carried): void => {
  if (port && draft.isProposed('port', port.id)) draft.update('port', port.id, carried);
};

/** A box that stood there before: its free socket for a link is set, and its inside is in what it routes now. */
export function setStanding(draft: KeyedDraft, { gateway }: NetworkInput, written: Written): void {
  const ports = written.ports.get(GATEWAY)!;
  const inside = ports.get(0);
  if (inside && !draft.isProposed('port', inside.id)) {
    const missing = interfacesOf(draft.plan, gateway.id)
      .flatMap(({ vlan }) => vlan ?? [])
      .filter((vlan) => !carries(inside, vlan));
    const carried = missing.reduce((port, vlan) => ({ ...port, ...adding(port, vlan) }), inside);
    if (missing.length > 0) draft.take('port', inside.id, carried);
  }
}

/** What every port carries: one segment, those of an access point, those needed beyond a link, or nothing. */
export function writePorts(input: NetworkInput, written: Written): void {
  const { draft, brief, hardware } = input;
  const management = managementOf(input.segments).vlan.id;
  const flat = brief.choice.separation === 'flat';
  const idle = parked(draft.plan);
  const strangers = new Map(brief.places.map((one) => [one.id, one.strangers]));
  const needed = new Map(hardware.switches.map((one) => [one.key, ownVlans(input, one)]));
  for (const design of hardware.switches) {
    const ports = written.ports.get(design.key)!;
    for (const port of ports.values()) if (port.number > 0) setCarried(draft, port, idle);
    for (const [number, { for: who }] of design.plugged)
      if (who) setCarried(draft, ports.get(number), carriedFor(input, who, management, flat));
    for (const [number, { for: who }] of design.plugged)
      if (who && 'need' in who && strangers.get(placeOf(brief, who.need).id)) {
        const port = ports.get(number)!;
        if (draft.isProposed('port', port.id)) draft.update('port', port.id, { exposed: true });
      }
    setCarried(draft, ports.get(0), access(management));
  }
  for (const { key } of hardware.accessPoints) {
    const vlans = airVlans(input, key).filter((vlan) => vlan !== management);
    const ports = written.ports.get(key)!;
    const carried = vlans.length > 0 ? trunk(vlans, management) : access(management);
    for (const port of ports.values()) setCarried(draft, port, port.number > 1 ? idle : carried);
    const socket = ports.get(1)!;
    for (const design of hardware.switches)
      for (const [number, { for: who }] of design.plugged)
        if (who && 'accessPoint' in who && who.accessPoint === key)
          plug(draft, written, { box: design.key, port: number }, socket, `cable ${key}`);
  }
  const gateway = written.ports.get(GATEWAY)!;
  const lines = linePorts(hardware.gateway, brief.lines.length);
  for (const port of gateway.values()) {
    if (port.number === 0) continue;
    setCarried(draft, port, lines.includes(port.number) ? uplinkRole : idle);
  }
  for (const port of written.ports.get(CORE)?.values() ?? [])
    if (port.number > 0) setCarried(draft, port, idle);
  carryOverLinks(input, written, needed, flat, management);
}

function carriedFor(
  input: NetworkInput,
  who: NonNullable<Wanted['for']>,
  management: string,
  flat: boolean,
): Carried {
  if ('need' in who) return access(segmentOf(input, who.need).vlan.id);
  const vlans = airVlans(input, who.accessPoint).filter((vlan) => vlan !== management);
  return flat || vlans.length === 0 ? access(management) : trunk(vlans, management);
}

/** Each link carries what is needed beyond it, a ring everything that is needed anywhere. */
function carryOverLinks(
  input: NetworkInput,
  written: Written,
  needed: ReadonlyMap<string, ReadonlySet<string>>,
  flat: boolean,
  management: string,
): void {
  const { draft, hardware } = input;
  const below = new Map<string, Set<string>>();
  const gather = (box: string): Set<string> => {
    const known = below.get(box);
    if (known) return known;
    const all = new Set(needed.get(box) ?? []);
    below.set(box, all);
    for (const link of hardware.links)
      if (link.from.box === box && !link.ring) for (const vlan of gather(link.to.box)) all.add(vlan);
    return all;
  };
  const everywhere = (world: World) =>
    new Set(
      hardware.switches
        .filter((one) => one.world === world)
        .flatMap(({ key }) => [...(needed.get(key) ?? [])]),
    );
  const worldAt = new Map(hardware.switches.map(({ key, world }) => [key, world]));
  const inside = new Set([...insideGroups(input.brief)].map((key) => input.segments.get(key)!.vlan.id));
  const transit = input.segments.get('transit')?.vlan.id;
  const vlansOver = (link: (typeof hardware.links)[number]): Iterable<string> => {
    // What the layer-3 switch routes goes to the gateway over the transit link only.
    if (link.to.box === CORE)
      return [...[...everywhere('')].filter((vlan) => !inside.has(vlan)), ...(transit ? [transit] : [])];
    const whole = link.ring || link.from.box === GATEWAY || link.from.box === CORE;
    return whole ? everywhere(worldAt.get(link.to.box)!) : gather(link.to.box);
  };
  for (const link of hardware.links) {
    const vlans = vlansOver(link);
    const carried = flat ? access(management) : trunk([...vlans]);
    for (const end of [link.from, link.to]) {
      const port = written.ports.get(end.box)!.get(end.port)!;
      if (draft.isProposed('port', port.id)) draft.update('port', port.id, carried);
      // Nothing was plugged into it.
      else draft.take('port', port.id, { ...carried, enabled: true, profile: null });
    }
  }
}
