import { equal } from '../plan';
import type { PlainPage } from './pages/plain';
import { type PortFacts, VidSet, sameSet } from '../model/wiring';
import { isOnAir } from './air-seats';
import { type BoxState, type Management, type SiteState, hasOneSocket, placeIn, withBox } from './state';

/** What is set on boxes, one setting page at a time, and what that makes of the site. */

export type Setting =
  /** Makes the VLANs a box has to know. */
  | { readonly kind: 'vlans'; readonly vids: readonly number[] }
  /**
   * Sets a port. `add`: it keeps what it had besides what it gets; `pvid`: untagged frames already go where they are to go,
   * while it still sends as before; `set`: it is as planned. Only so do both ends of a link change one after the other
   * without parting.
   */
  | {
      readonly kind: 'port';
      readonly port: string;
      readonly facts: PortFacts | null;
      readonly part: 'add' | 'pvid' | 'set';
    }
  /**
   * Moves the management address: from then on the box is found elsewhere. A box with one socket has it on the same page as
   * what that socket carries, so both change at once.
   */
  | {
      readonly kind: 'management';
      readonly to: Management;
      readonly inside: PortFacts | null;
      readonly socket: { readonly port: string; readonly facts: PortFacts | null } | null;
    }
  /** Fills in the other pages of the box: what is said there, the settings of the box tell. */
  | { readonly kind: 'pages'; readonly pages: readonly PlainPage[] }
  /** Plugs in the cables to other boxes; a box with one socket is looked at before, where the laptop is in that socket. */
  | { readonly kind: 'plug'; readonly after: 'save' | 'check' }
  /** Gives a free socket to the installer for a while. */
  | { readonly kind: 'parachute'; readonly port: string; readonly facts: PortFacts }
  | { readonly kind: 'save' }
  /** After a restart it still is what it was set to be. */
  | { readonly kind: 'check' };
export type SettingKind = Setting['kind'];

export interface Step {
  readonly device: string;
  readonly setting: Setting;
}

export const sameFacts = (a: PortFacts | null, b: PortFacts | null): boolean =>
  a === b ||
  (a !== null &&
    b !== null &&
    a.pvid === b.pvid &&
    a.untagged === b.untagged &&
    a.accepts === b.accepts &&
    a.ingressFilter === b.ingressFilter &&
    sameSet(a.tagged, b.tagged));

/** A port that keeps what passes untagged and gets what is to pass besides, tagged. What is untagged in the end comes last. */
export function added(now: PortFacts, then: PortFacts): PortFacts {
  const vids = new Set(now.tagged.vids);
  for (const vid of then.tagged.vids) if (vid !== now.untagged) vids.add(vid);
  if (then.untagged !== null && then.untagged !== now.untagged) vids.add(then.untagged);
  const every = now.tagged.except || then.tagged.except;
  return {
    ...now,
    tagged: every ? new VidSet(true, new Set()) : new VidSet(false, vids),
    accepts: 'all',
    ingressFilter: false,
  };
}

/** Does a port lead to another box? */
export const leadsOn = ({ seats, links }: SiteState, port: string): boolean =>
  (links.get(port) ?? []).some(({ to }) => seats.has(to));

/** The settings that make of one box what it is to be, in the order in which such pages are filled in. */
export function settingsBetween(site: SiteState, now: BoxState, then: BoxState): Step[] {
  const { device, ports } = then.bridge;
  const steps: Step[] = [];
  const add = (setting: Setting) => steps.push({ device, setting });
  const vids = [...then.vids].filter((vid) => !now.vids.has(vid)).sort((a, b) => a - b);
  if (vids.length > 0) add({ kind: 'vlans', vids });
  const inside = ports.findIndex(({ number }) => number === 0);
  const moves = then.management !== null && !equal(now.management, then.management);
  const only = moves && hasOneSocket(then) ? ports.findIndex(({ number }) => number > 0) : -1;
  ports.forEach((port, at) => {
    const { id } = port;
    const [was, is] = [now.bridge.facts[at]!, then.bridge.facts[at]!];
    if (at === inside || at === only || isOnAir(port) || sameFacts(was, is)) return;
    if (was && is && leadsOn(site, id)) {
      const more = added(was, is);
      if (!sameFacts(more, was) && !sameFacts(more, is))
        add({ kind: 'port', port: id, facts: more, part: 'add' });
      const between = { ...more, pvid: is.pvid };
      if (is.pvid !== null && is.pvid !== was.pvid && !sameFacts(between, is))
        add({ kind: 'port', port: id, facts: between, part: 'pvid' });
    }
    add({ kind: 'port', port: id, facts: is, part: 'set' });
  });
  if (moves)
    add({
      kind: 'management',
      to: then.management,
      inside: then.bridge.facts[inside] ?? null,
      socket: only < 0 ? null : { port: ports[only]!.id, facts: then.bridge.facts[only]! },
    });
  if (now.pages.length > then.pages.length)
    add({ kind: 'pages', pages: now.pages.filter((page) => !then.pages.includes(page)) });
  if (site.apart.has(device)) add({ kind: 'plug', after: hasOneSocket(then) ? 'check' : 'save' });
  if (steps.length > 0) {
    add({ kind: 'save' });
    add({ kind: 'check' });
  }
  return steps;
}

/** What steps there are for every box, in the order of the boxes. */
export const settingsOf = (now: SiteState, then: SiteState): Step[] =>
  now.boxes.flatMap((box, at) => settingsBetween(now, box, then.boxes[at]!));

function setPort(box: BoxState, port: string, facts: PortFacts | null): BoxState {
  const at = box.bridge.ports.findIndex(({ id }) => id === port);
  return { ...box, bridge: { ...box.bridge, facts: box.bridge.facts.with(at, facts) } };
}

/** A box whose wireless networks are on the air. */
const onAir = ({ air }: SiteState, box: BoxState): BoxState => {
  const { ports, facts } = box.bridge;
  return { ...box, bridge: { ...box.bridge, facts: ports.map(({ id }, i) => air.get(id) ?? facts[i]!) } };
};

/** The site after a step. */
export function after(state: SiteState, { device, setting }: Step): SiteState {
  const at = placeIn(state, device);
  const box = state.boxes[at]!;
  switch (setting.kind) {
    case 'vlans':
      return withBox(state, at, { ...box, vids: new Set([...box.vids, ...setting.vids]) }, state.ways);
    case 'port':
    case 'parachute': {
      // Where no cable leads to another box no frame between boxes passes.
      const ways = state.links.has(setting.port) ? {} : state.ways;
      return withBox(state, at, setPort(box, setting.port, setting.facts), ways);
    }
    case 'management': {
      const { inside, socket } = setting;
      const inner = box.bridge.ports.find(({ number }) => number === 0);
      let moved = inner ? setPort(box, inner.id, inside) : box;
      if (socket) moved = setPort(moved, socket.port, socket.facts);
      return withBox(state, at, { ...moved, management: setting.to });
    }
    case 'pages': {
      const pages = box.pages.filter((page) => !setting.pages.includes(page));
      const set = setting.pages.includes('wireless') ? onAir(state, box) : box;
      return withBox(state, at, { ...set, pages }, state.ways);
    }
    case 'plug':
      return { ...state, apart: new Set([...state.apart].filter((other) => other !== device)), ways: {} };
    case 'save':
    case 'check':
      return state;
  }
}

/** Does it set something that is lost with a restart until the box is saved? */
export const wantsSaving = ({ setting: { kind } }: Step): boolean =>
  kind !== 'save' && kind !== 'check' && kind !== 'plug';

/** Is it found at the same address in the same VLAN? */
export const equalManagement = (a: Management | null, b: Management | null): boolean =>
  a?.address === b?.address && a?.vid === b?.vid;

/** Is a box what it is to be? */
export const isAsPlanned = (now: BoxState, then: BoxState): boolean =>
  now.pages.length === 0 &&
  now.bridge.facts.every(
    (facts, at) => isOnAir(then.bridge.ports[at]!) || sameFacts(facts, then.bridge.facts[at]!),
  ) &&
  equalManagement(now.management, then.management);

const PARTS = ['add', 'pvid', 'set'] as const;
/** Is one setting a part of what is done to a port before another? */
export const comesEarlier = (a: Setting, b: Setting): boolean =>
  a.kind === 'port' &&
  b.kind === 'port' &&
  a.port === b.port &&
  PARTS.indexOf(a.part) < PARTS.indexOf(b.part);
