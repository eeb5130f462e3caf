import { type Port, groupBy } from '../plan';
import { factoryBridge } from '../model/tree';
import { CORE } from './design';
import type { KeyedDraft } from './keyed';
import type { NetworkInput, Written } from './network';

/** Cables between boxes and to what is plugged in, and the roots of the trees over them. */

/** A cable between a port of a box and the socket of what is plugged into it. */
export function plug(
  draft: KeyedDraft,
  written: Written,
  at: { readonly box: string; readonly port: number },
  socket: Port,
  key: string,
): void {
  draft.under('cables', key, () =>
    draft.insert('cable', {
      from: written.ports.get(at.box)!.get(at.port)!.id,
      fromSide: 'front',
      to: socket.id,
      toSide: 'front',
      media: 'copper',
      length: null,
      label: '',
    }),
  );
}

export function writeLinks({ draft, hardware }: NetworkInput, written: Written): void {
  for (const { key, from, to, media, metres } of hardware.links) {
    const [a, b] = [from, to].map(({ box, port }) => written.ports.get(box)!.get(port)!);
    // An optic of the slower end goes into both.
    const speed = Math.min(a!.speed, b!.speed);
    for (const port of [a!, b!])
      if (port.speed !== speed && draft.isProposed('port', port.id)) draft.update('port', port.id, { speed });
    draft.under('cables', key, () =>
      draft.insert('cable', {
        from: a!.id,
        fromSide: 'front',
        to: b!.id,
        toSide: 'front',
        media,
        length: metres,
        label: '',
      }),
    );
  }
}

/** Cables that act as one do so at both of their ends. */
export function writeBundles({ draft, hardware }: NetworkInput, written: Written): void {
  for (const [bundle, links] of groupBy(
    hardware.links.filter((link) => link.bundle !== null),
    (link) => link.bundle,
  ))
    for (const side of ['from', 'to'] as const) {
      const { box } = links[0]![side];
      const lag = draft.under('cables', `${side} of bundle ${bundle}`, () =>
        draft.insert('lag', { device: written.devices.get(box)!.id, name: 'bundle-1', lacp: true }),
      );
      for (const link of links)
        draft.update('port', written.ports.get(box)!.get(link[side].port)!.id, { lag: lag.id });
    }
}

/** The root of each tree stands at the main place, and where there is a way round, another takes over. */
export function writeRoots({ draft, hardware }: NetworkInput, written: Written): void {
  const priorities = new Map(hardware.roots.map(({ key, priority }) => [key, priority]));
  const core = hardware.core ? [{ key: CORE, model: hardware.core }] : [];
  for (const { key, model } of [...core, ...hardware.switches]) {
    const priority = priorities.get(key);
    if (priority === undefined || model.spanningTree === 'none') continue;
    draft.under('cables', `root ${key}`, () =>
      draft.insert('bridge', {
        ...factoryBridge(model.spanningTree),
        device: written.devices.get(key)!.id,
        priority,
      }),
    );
  }
}
