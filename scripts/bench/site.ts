import { Draft, type Plan, type RecordOf, planOf, SITE_ID } from '../../src/core/plan';
import { newSitePlan } from '../../src/core/edit';

/**
 * A site of `subnets` subnets with `perSubnet` fixed addresses each, and one mistake in fifty hosts: an address twice,
 * a MAC twice, a bad name, a static address in the pool.
 */
export function largeSite(subnets: number, perSubnet: number): Plan {
  const base = newSitePlan({ name: 'Large', kind: 'industrial', numbering: 'free' }, 'big');
  const draft = new Draft(base, 'x');
  draft.update('site', SITE_ID, { space: [{ address: 10 * 2 ** 24, length: 8 }], infrastructureBand: 8 });
  const lan = [...base.lan.values()][0]!.id;
  const gateway = [...base.device.values()][0]!.id;
  const lists = {
    site: [...draft.plan.site.values()],
    lan: [...base.lan.values()],
    vlan: [] as RecordOf<'vlan'>[],
    device: [...base.device.values()],
    interface: [] as RecordOf<'interface'>[],
    subnet: [] as RecordOf<'subnet'>[],
    pool: [] as RecordOf<'pool'>[],
    address: [] as RecordOf<'address'>[],
  };
  const settings = { name: '', ownLength: null, ownGateway: null, ownDns: null, joins: null };
  for (let s = 0; s < subnets; s++) {
    const network = 10 * 2 ** 24 + s * 256;
    const purpose: RecordOf<'vlan'>['purpose'] =
      s === 0 ? 'management' : s % 9 === 0 ? 'cameras' : 'control-cell';
    const vlan = {
      id: `v${s}`,
      lan,
      vid: (s % 4000) + 10,
      code: s.toString(36).toUpperCase().padStart(3, '0'),
      name: `Cell ${s}`,
      colour: '#2d7d3a',
      purpose,
      internet: false,
    };
    lists.vlan.push({
      ...vlan,
      devices: perSubnet,
      growth: 10,
      transient: null,
      rank: `a${String(s).padStart(6, '0')}x`,
    });
    lists.interface.push({
      id: `g${s}`,
      device: gateway,
      kind: 'vlan',
      vlan: `v${s}`,
      mac: null,
      ...settings,
    });
    lists.subnet.push({
      id: `s${s}`,
      vlan: `v${s}`,
      prefix: { address: network, length: 24 },
      pinned: false,
      dns: [{ interface: `g${s}` }],
      domain: '',
      advertised: true,
    });
    lists.pool.push({
      id: `p${s}`,
      subnet: `s${s}`,
      start: network + 200,
      end: network + 250,
      lease: 43200,
      servedBy: [`g${s}`],
    });
    const address = { subnet: `s${s}`, assignment: 'static' as const, note: '' };
    lists.address.push({ ...address, id: `q${s}`, address: network + 1, interface: `g${s}`, gateway: true });
    for (let h = 0; h < perSubnet; h++) {
      const n = s * perSubnet + h;
      const fault = n % 200;
      const number = fault === 50 ? 10 : fault === 100 ? 205 : 9 + h;
      const mac = `02:00:00:${(fault === 150 ? n - 1 : n)
        .toString(16)
        .padStart(6, '0')
        .toUpperCase()
        .replace(/(..)(..)(..)/, '$1:$2:$3')}`;
      lists.device.push({
        id: `d${n}`,
        name: fault === 0 ? `Bad name ${n}` : `host-${n}`,
        kind: 'sensor',
        firewall: 'unknown',
      });
      lists.interface.push({ id: `i${n}`, device: `d${n}`, kind: 'nic', vlan: null, mac, ...settings });
      lists.address.push({
        ...address,
        id: `a${n}`,
        address: network + number,
        interface: `i${n}`,
        gateway: false,
      });
    }
  }
  return planOf(lists);
}
