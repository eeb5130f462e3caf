import { type Cable, type Device, type Port, type Plan, planOf } from '../../src/core/plan';
import { newSitePlan } from '../../src/core/edit';
import { plainBox, plainPort, plainVlan } from '../../src/core/testing/networks';

/**
 * Switches of 48 ports in a tree with a ring among the first ten, every trunk carrying every VLAN, and end devices on
 * access ports of all switches.
 */
export function largeNetwork(switches: number, vlans: number, endpoints: number): Plan {
  const base = newSitePlan({ name: 'Large', kind: 'industrial' }, 'net');
  const lan = [...base.lan.values()][0]!.id;
  const vlan = Array.from({ length: vlans }, (_, v) =>
    plainVlan({
      id: `v${v}`,
      lan,
      vid: v + 10,
      code: v.toString(36).toUpperCase().padStart(3, '0'),
      name: `Segment ${v}`,
      purpose: 'control-cell',
      devices: 10,
      rank: `a${String(v).padStart(4, '0')}x`,
    }),
  );
  const every = vlan.map(({ id }) => id).sort();
  const device: Device[] = [...base.device.values()];
  const port: Port[] = [];
  const cable: Cable[] = [];
  const used = new Array<number>(switches).fill(0);
  const access = (id: string) => ({
    role: 'access' as const,
    pvid: id,
    untagged: id,
    accepts: 'untagged' as const,
  });
  const box = Array.from({ length: switches }, (_, s) => {
    device.push({ id: `s${s}`, name: `sw-${s}`, kind: 'switch', firewall: 'unknown' });
    for (let n = 0; n <= 48; n++)
      port.push(
        plainPort({
          id: `s${s}p${n}`,
          device: `s${s}`,
          number: n,
          ...(n === 0 ? access('v0') : { role: 'parked' }),
        }),
      );
    return plainBox({ id: `x${s}`, device: `s${s}` });
  });
  const at = new Map(port.map((item, i) => [item.id, i]));
  const set = (id: string, fields: Partial<Port>) =>
    (port[at.get(id)!] = { ...port[at.get(id)!]!, ...fields });
  const lay = (from: string, to: string) =>
    cable.push({
      id: `c${cable.length}`,
      from,
      fromSide: 'front',
      to,
      toSide: 'front',
      media: 'copper',
      length: null,
      label: '',
    });
  const join = (a: number, b: number) => {
    const [from, to] = [`s${a}p${++used[a]!}`, `s${b}p${++used[b]!}`];
    for (const id of [from, to]) set(id, { role: 'trunk', tagged: every, accepts: 'tagged' });
    lay(from, to);
  };
  const ring = Math.min(10, switches);
  for (let s = 0; s < ring; s++) join(s, (s + 1) % ring);
  for (let s = ring; s < switches; s++) join(s, s % ring);
  for (let e = 0, s = 0; e < endpoints; e++) {
    do s = (s + 1) % switches;
    while (used[s]! >= 48);
    device.push({ id: `e${e}`, name: `end-${e}`, kind: 'computer', firewall: 'unknown' });
    port.push(plainPort({ id: `e${e}p1`, device: `e${e}`, number: 1 }));
    const id = `s${s}p${++used[s]!}`;
    set(id, access(`v${e % vlans}`));
    lay(id, `e${e}p1`);
  }
  return planOf({
    site: [...base.site.values()],
    lan: [...base.lan.values()],
    vlan,
    device,
    box,
    port,
    cable,
  });
}
