import fc from 'fast-check';
import type { IpAddress } from '../address';
import { access, trunk } from '../model/wiring';
import {
  type Address,
  type Box,
  type Cable,
  type Device,
  type Interface,
  type Plan,
  type Port,
  planOf,
  siteOf,
} from '../plan';
import type { AsItComes } from '../commission';
import { plainBox, plainPort, plainVlan } from './networks';
import { emptySite, prefix } from './plans';

/** Sites on their way: managed switches in a tree with a ring or two, as they come, partly set already, or alike by address. */

export const drawnCommission = fc.record({
  /** Each box hangs on an earlier one. */
  parents: fc.array(fc.nat(100), { minLength: 1, maxLength: 7 }),
  extra: fc.array(fc.tuple(fc.nat(100), fc.nat(100)), { maxLength: 2 }),
  /** By box: as it comes, with an address of its own or that of its like; or set as planned. */
  comes: fc.array(fc.constantFrom('own', 'own', 'own', 'alike', 'done'), { minLength: 8, maxLength: 8 }),
  natives: fc.array(fc.constantFrom('none', 'none', 'management', 'staff'), { minLength: 9, maxLength: 9 }),
  factory: fc.constantFrom('default-vlan', 'default-vlan', 'every-vlan'),
  /** Which boxes have a port planned in the management VLAN. */
  jacks: fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
  roles: fc.array(fc.constantFrom('staff', 'guests', 'parked', 'parked'), { minLength: 64, maxLength: 64 }),
  /** Which boxes have one socket only, like access points; where they hang on one other box and send their own VLAN untagged. */
  single: fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
  /** How one gets into each box as it comes; nearly all answer at any port. */
  ways: fc.array(fc.constantFrom('any-port', 'any-port', 'any-port', 'one-port', 'link-local', 'console'), {
    minLength: 8,
    maxLength: 8,
  }),
  bench: fc.constantFrom(false, false, false, true),
});
export type Drawn = typeof drawnCommission extends fc.Arbitrary<infer T> ? T : never;

export interface Drawing {
  readonly plan: Plan;
  readonly comes: ReadonlyMap<string, AsItComes>;
}

/** `sockets` on the case of each box. */
export function commissionSite(drawn: Drawn, sockets = 8): Drawing {
  const base = emptySite();
  const lan = [...base.lan.values()][0]!;
  const vids = { management: 10, staff: 20, guests: 30 } as const;
  const vlans = Object.entries(vids).map(([name, vid], i) =>
    plainVlan({
      id: name,
      lan: lan.id,
      vid,
      code: `V${i}`,
      rank: `a${i}x`,
      purpose: name === 'management' ? 'management' : name === 'guests' ? 'guest' : 'staff',
    }),
  );
  const net = prefix('10.20.10.0/24');
  const count = drawn.parents.length + 1;
  const devices: Device[] = [];
  const boxes: Box[] = [];
  const cards: Interface[] = [];
  const addresses: Address[] = [];
  const ports = new Map<string, Port>();
  const cables: Cable[] = [];
  const comes = new Map<string, AsItComes>();
  const used = new Map<number, number>();
  for (let b = 0; b < count; b++) {
    const id = `b${b}`;
    devices.push({ id, name: `box-${b}`, kind: 'switch', firewall: 'unknown' });
    boxes.push(plainBox({ id: `x${b}`, device: id, factory: drawn.factory as Box['factory'] }));
    cards.push({
      id: `i${b}`,
      device: id,
      kind: 'nic',
      vlan: null,
      mac: null,
      name: '',
      ownLength: null,
      ownGateway: null,
      ownDns: null,
      joins: null,
    });
    addresses.push({
      id: `a${b}`,
      subnet: 'net',
      address: ((net.address as number) + 10 + b) as IpAddress,
      interface: `i${b}`,
      assignment: 'static',
      gateway: false,
      note: '',
    });
    for (let n = 0; n <= sockets; n++) {
      const role = drawn.roles[(b * sockets + n) % drawn.roles.length]!;
      const jack = n === sockets && drawn.jacks[b];
      const carried =
        n === 0 || jack
          ? access('management')
          : role === 'parked'
            ? { role: 'parked' as const, pvid: null, untagged: null }
            : access(role);
      ports.set(`b${b}p${n}`, plainPort({ id: `b${b}p${n}`, device: id, number: n, ...carried }));
    }
    const state = drawn.comes[b % drawn.comes.length];
    if (state !== 'done')
      comes.set(id, {
        address: ((prefix('192.168.0.0/16').address as number) +
          256 * (state === 'alike' ? 1 : 2 + b) +
          1) as IpAddress,
        length: 24,
        way: drawn.ways[b]!,
        // With a cable to another box, or a free one.
        port: b % 2 === 0 ? 1 : sockets,
      });
  }
  const next = (b: number) => {
    const n = (used.get(b) ?? 0) + 1;
    used.set(b, n);
    return n;
  };
  const join = (a: number, b: number, native: string) => {
    if ((used.get(a) ?? 0) >= sockets - 2 || (used.get(b) ?? 0) >= sockets - 2 || a === b) return;
    const [from, to] = [`b${a}p${next(a)}`, `b${b}p${next(b)}`];
    const carried = trunk(['management', 'staff', 'guests'], native === 'none' ? null : native);
    for (const id of [from, to]) ports.set(id, { ...ports.get(id)!, ...carried });
    cables.push({
      id: `c${cables.length}`,
      from,
      fromSide: 'front',
      to,
      toSide: 'front',
      media: 'copper',
      length: null,
      label: '',
    });
  };
  drawn.parents.forEach((parent, i) => join(parent % (i + 1), i + 1, drawn.natives[i]!));
  drawn.extra.forEach(([a, b], i) => join(a % count, b % count, drawn.natives[7 + i]!));
  for (let b = 1; b < count; b++)
    if (drawn.single[b] && used.get(b) === 1 && ports.get(`b${b}p1`)!.untagged === 'management')
      for (let n = 2; n <= sockets; n++) ports.delete(`b${b}p${n}`);
  const subnet = {
    id: 'net',
    vlan: 'management',
    prefix: net,
    pinned: false,
    dns: [],
    domain: '',
    advertised: false,
  };
  const plan = planOf({
    site: [{ ...siteOf(base), staging: drawn.bench ? 'bench' : 'on-site' }],
    lan: [lan],
    vlan: vlans,
    subnet: [subnet],
    device: devices,
    box: boxes,
    interface: cards,
    address: addresses,
    port: [...ports.values()],
    cable: cables,
  } as never);
  return { plan, comes };
}

/** Two switches as they come, joined by a trunk, most ports parked. */
export const plainDrawing: Drawn = {
  parents: [0],
  extra: [],
  comes: Array.from({ length: 8 }, () => 'own' as const),
  natives: Array.from({ length: 9 }, () => 'none' as const),
  factory: 'default-vlan',
  jacks: Array.from({ length: 8 }, () => true),
  roles: Array.from({ length: 64 }, (_, i) => (i % 2 === 0 ? ('staff' as const) : ('parked' as const))),
  single: Array.from({ length: 8 }, () => false),
  ways: Array.from({ length: 8 }, () => 'any-port' as const),
  bench: false,
};
