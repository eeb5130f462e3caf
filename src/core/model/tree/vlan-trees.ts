import { plainVlansOf } from '../../plan';
import { DEFAULT_VID, type Seat, type VidSet, enters, inwardPorts, isMember, leaves } from '../wiring';
import type { Grown, Growing } from './growing';
import { type Part, lansOf } from './lans';
import { stpPortOf } from './settings';

const PART_LETTERS: Readonly<Record<Part, string>> = { own: 'o', through: 't', none: 'n' };

/**
 * A tree for each VLAN over the boxes that run one for each. VLAN 1 is in the common tree. VLANs that pass the same ports, and
 * for which nothing is set apart, have the same tree under another number; it is grown once.
 */
export function growVlans(growing: Growing, blocked: ReadonlyMap<string, VidSet>): Grown[] {
  const { plan, fabric, settings } = growing;
  const { bridges, links, seats } = fabric;
  const inward = inwardPorts(fabric);
  const apart = new Set([
    ...[...plan.stpPort.values()].map(({ instance }) => instance),
    ...[...plan.instance.values()].map(({ number }) => number),
  ]);
  const vids = [...new Set(plainVlansOf(plan).map(({ vid }) => vid))].filter((vid) => vid !== DEFAULT_VID);
  const first = new Map<string, Grown>();
  return vids.map((vid) => {
    const part = (bridge: number, index: number): Part => {
      const { box, facts, ports } = bridges[bridge]!;
      const own = facts[index];
      const { id } = ports[index]!;
      if (!own || growing.shut.has(id) || growing.aside.has(id) || (box.vlanAware && !isMember(own, vid)))
        return 'none';
      if (settings[bridge]!.mode === 'rstp-per-vlan')
        return stpPortOf(plan, id, 0).guard === 'filter' ? 'none' : 'own';
      const stopped = blocked.get(id);
      return stopped && stopped.has(vid) ? 'none' : 'through';
    };
    const joined = (from: Seat, to: Seat): boolean => {
      const [a, b] = [bridges[from.bridge]!, bridges[to.bridge]!];
      if (!a.box.vlanAware || !b.box.vlanAware) return true;
      const tag = leaves(a, from.port, vid);
      const entered = tag === null ? null : enters(b, to.port, tag);
      return entered !== null && 'vid' in entered && entered.vid === vid;
    };
    const places = bridges.flatMap(({ ports }, at) =>
      settings[at]!.mode === 'rstp-per-vlan' && ports.some((_, i) => part(at, i) === 'own') ? [at] : [],
    );
    let passes = `${places.join()} `;
    for (const [bridge, indexes] of inward.entries())
      for (const port of indexes) {
        passes += PART_LETTERS[part(bridge, port)];
        for (const { to } of links.get(bridges[bridge]!.ports[port]!.id) ?? []) {
          const seat = seats.get(to);
          if (seat) passes += joined({ bridge, port }, seat) ? '=' : '-';
        }
      }
    const known = apart.has(vid) ? undefined : first.get(passes);
    if (known) {
      const identifiers = known.identifiers.map(({ priority, mac }) => ({
        priority: priority - known.number + vid,
        mac,
      }));
      return { ...known, number: vid, identifiers };
    }
    const lans = lansOf(fabric, part, joined);
    const grown = growing.grow(
      'vlan',
      vid,
      growing.shape(vid, lans, places, (place) => place),
    );
    if (!apart.has(vid)) first.set(passes, grown);
    return grown;
  });
}
