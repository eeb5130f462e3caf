import {
  hashOf,
  type Address,
  type Interface,
  type Party,
  type Rule,
  type Subnet,
  type Zone,
  type Plan,
  planOf,
  tableNames,
} from '../../src/core/plan';
import { blankBox } from '../../src/core/model/wiring';
import { plainPort } from '../../src/core/testing/networks';
import { largeNetwork } from './network';

const LETTERS = '0123456789abcdefghijklmnopqrstuvwxyz';
const rank = (n: number) =>
  `a${[...n.toString(36).padStart(5, '0')].map((c) => LETTERS.indexOf(c).toString().padStart(2, '0')).join('')}x`;

/** Numbers in no order, the same in every run. */
const mixed = (n: number): number => hashOf(`rule ${n}`);

/**
 * A site of `zones` zones of one segment each and `endpoints` end devices, cabled over 20 switches to one gateway, with
 * `rules` rules between single devices, from devices to segments and between zones; one in a hundred speaks of anybody.
 */
export function largePolicy(
  zones: number,
  endpoints: number,
  rules: number,
  switches = Math.ceil(endpoints / 40),
): Plan {
  const base = largeNetwork(switches, zones, endpoints);
  const gateway = [...base.device.values()].find(({ kind }) => kind === 'gateway')!;
  const every = [...base.vlan.values()].map(({ id }) => id).sort();
  const lists = Object.fromEntries(
    tableNames.map((table) => [table, [...base[table].values()]]),
  ) as unknown as Record<string, object[]>;
  lists.box!.push({
    ...blankBox,
    id: 'gwbox',
    device: gateway.id,
    model: 'gateway',
    vlanAware: true,
    mixesTags: true,
    passes: [],
    layer3: true,
    filter: 'stateful',
    spanningTree: 'none',
    vlanLimit: null,
    snooping: false,
    dot1x: false,
    factory: 'default-vlan',
    poeBudget: null,
    powerFeeds: 1,
  });
  const trunk = {
    role: 'trunk' as const,
    pvid: null,
    untagged: null,
    tagged: every,
    accepts: 'tagged' as const,
  };
  for (const number of [0, 1])
    lists.port!.push(plainPort({ id: `gwp${number}`, device: gateway.id, number, ...trunk }));
  const free = base.port.get('s0p48')!;
  lists.port = lists.port!.map((item) =>
    (item as { id: string }).id === free.id ? { ...free, ...trunk } : item,
  );
  lists.cable = lists.cable!.filter((item) => (item as { from: string }).from !== free.id);
  lists.cable.push({
    id: 'gwc',
    from: free.id,
    fromSide: 'front',
    to: 'gwp1',
    toSide: 'front',
    media: 'copper',
    length: null,
    label: '',
  });
  const settings = { mac: null, name: '', ownLength: null, ownGateway: null, ownDns: null, joins: null };
  const network = (v: number) => 10 * 2 ** 24 + v * 256;
  const card = (id: string, device: string, vlan: string | null): Interface => ({
    id,
    device,
    kind: vlan === null ? 'nic' : 'vlan',
    vlan,
    ...settings,
  });
  const address = (id: string, v: number, host: number, item: string, isGateway: boolean): Address => ({
    id,
    subnet: `n${v}`,
    address: network(v) + host,
    interface: item,
    assignment: 'static',
    gateway: isGateway,
    note: '',
  });
  for (let v = 0; v < zones; v++) {
    const subnet: Subnet = {
      id: `n${v}`,
      vlan: `v${v}`,
      prefix: { address: network(v), length: 24 },
      advertised: true,
      pinned: false,
      dns: [],
      domain: '',
    };
    const zone: Zone = {
      id: `z${v}`,
      name: `Zone ${v}`,
      rank: rank(v),
      vlans: [`v${v}`],
      uplinks: [],
      tunnels: [],
      gateway: false,
      inside: 'allow',
      manages: false,
    };
    lists.subnet!.push(subnet);
    lists.zone!.push(zone);
    lists.interface!.push(card(`g${v}`, gateway.id, `v${v}`));
    lists.address!.push(address(`ga${v}`, v, 1, `g${v}`, true));
  }
  for (let e = 0; e < endpoints; e++) {
    lists.interface!.push(card(`i${e}`, `e${e}`, null));
    lists.address!.push(address(`a${e}`, e % zones, 10 + Math.floor(e / zones), `i${e}`, false));
  }
  const services = ['stdhttps', 'stdssh', 'stdmodbus', 'stdrtsp'];
  for (let r = 0; r < rules; r++) {
    const device = (n: number): Party => ({ device: `e${mixed(n) % endpoints}` });
    const vlan = (n: number): Party => ({ vlan: `v${mixed(n) % zones}` });
    const kind = r % 100;
    const rule: Rule = {
      id: `r${r}`,
      rank: rank(r),
      from:
        kind === 0
          ? []
          : kind < 70
            ? [device(r)]
            : kind < 90
              ? [vlan(r)]
              : [{ zone: `z${mixed(r) % zones}` }],
      to: kind < 60 ? [device(r + 1_000_000)] : [vlan(r + 2_000_000)],
      services: r % 5 === 0 ? [] : [services[r % 4]!],
      action: r % 3 === 0 ? 'deny' : 'allow',
      log: false,
      enabled: true,
      until: null,
      device: null,
      note: '',
    };
    lists.rule!.push(rule);
  }
  return planOf(lists as never);
}
