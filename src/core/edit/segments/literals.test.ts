import fc from 'fast-check';
import { formatAddress, formatPrefix } from '../../address';
import { type Address, type Plan, type Rule, dnsOf, subnetOf } from '../../plan';
import { vlanFor } from '../../testing/gear';
import { soundPolicy } from '../../testing/policy';
import { build, damagedSite, done, prefix } from '../../testing/plans';
import { moreThan, runs } from '../../testing/runs';

const sound = soundPolicy();
const cameras = subnetOf(sound, vlanFor(sound, 'cameras').id, 4)!;
const staff = subnetOf(sound, vlanFor(sound, 'staff').id, 4)!;
const denies = (plan: Plan, ...networks: string[]): Plan =>
  done(plan, 'addRule', {
    action: 'deny',
    from: networks.map((network) => ({ prefix: network })),
    to: [{ vlan: staff.vlan }],
    services: [],
    note: 'by network',
  });
const networksOf = (rule: Rule): string[] =>
  rule.from.map((party) => ('prefix' in party ? formatPrefix(party.prefix) : ''));
const ruleIn = (plan: Plan): Rule => [...plan.rule.values()].find(({ note }) => note === 'by network')!;

describe('what names a subnet or an address in it', () => {
  test('goes along: rules, routes, DNS servers and questions', () => {
    const from = formatPrefix(cameras.prefix);
    expect(from).toBe('10.20.20.0/24');
    let plan = denies(sound, from, '10.20.20.10/32', '10.20.20.64/26', '10.20.0.0/16', '192.0.2.0/24');
    plan = done(plan, 'edit', { table: 'subnet', id: staff.id, set: { dns: [{ literal: '10.20.20.10' }] } });
    const router = [...plan.device.values()].find(({ kind }) => kind === 'gateway')!;
    plan = done(plan, 'addRoute', { device: router.id, prefix: '10.99.0.0/16', via: '10.20.20.30' });
    const [desk] = [...plan.device.values()].filter(({ name }) => name === 'desk');
    plan = done(plan, 'addQuestion', {
      fromPort: null,
      fromDevice: desk!.id,
      fromVlan: null,
      toDevice: null,
      toVlan: null,
      toAddress: '10.20.20.10',
      toGateway: false,
      protocol: 'icmp',
      port: 8,
      expected: 'delivered',
      why: 'by address',
    });
    const after = done(plan, 'setPrefix', { subnet: cameras.id, prefix: '10.20.77.0/24' });
    expect(networksOf(ruleIn(after))).toEqual([
      '10.20.77.0/24',
      '10.20.77.10/32',
      '10.20.77.64/26',
      '10.20.0.0/16',
      '192.0.2.0/24',
    ]);
    const [dns] = after.subnet.get(staff.id)!.dns;
    expect(dns).toEqual({ literal: prefix('10.20.77.10/32').address });
    expect([...after.route.values()].map(({ via }) => formatAddress(via))).toContain('10.20.77.30');
    const asked = [...after.question.values()].find(({ why }) => why === 'by address')!;
    expect(formatAddress(asked.toAddress!)).toBe('10.20.77.10');
  });
  test('stays where a subnet only grows or shrinks around it', () => {
    const plan = denies(sound, '10.20.20.0/24', '10.20.20.10/32', '10.20.20.0/26');
    const after = done(plan, 'setPrefix', { subnet: cameras.id, prefix: '10.20.20.0/25', relocate: true });
    expect(networksOf(ruleIn(after))).toEqual(['10.20.20.0/25', '10.20.20.10/32', '10.20.20.0/26']);
  });
  test('goes along with each of many that Fit moves at once, whoever stood where another stands now', () => {
    let moved = 0;
    fc.assert(
      fc.property(damagedSite, (site) => {
        const plan = build({ ...site, damage: site.damage.filter(([name]) => name === 'devices') });
        const hosts = [...plan.address.values()].filter((one) => typeof one.address === 'number');
        const single = (one: Address) => `${formatAddress(one.address)}/32`;
        if (hosts.length === 0 || new Set(hosts.map(single)).size < hosts.length) return;
        const [target] = plan.vlan.values();
        const ruled = done(plan, 'addRule', {
          action: 'deny',
          from: hosts.map((one) => ({ prefix: single(one) })),
          to: [{ vlan: target!.id }],
          services: [],
          note: 'by network',
        });
        const after = done(ruled, 'packSubnets', {});
        const now = hosts.map(({ id }) => single(after.address.get(id)!));
        moved += now.filter((one, i) => one !== single(hosts[i]!)).length;
        expect(networksOf(ruleIn(after))).toEqual(now);
      }),
      { numRuns: runs(60), seed: 8 },
    );
    expect(moved).toBeGreaterThan(moreThan(50));
  });
});

test('a DNS server of the other family is refused: hosts of the subnet could not be told', () => {
  const edited = (dns: readonly object[]) =>
    done(sound, 'edit', { table: 'subnet', id: staff.id, set: { dns } });
  expect(() => edited([{ literal: '10.20.20.10' }, { literal: '2001:db8::53' }])).toThrow(
    '2001:db8::53 is IPv6, and an IPv4 subnet tells its hosts IPv4 servers; write it at the IPv6 subnet.',
  );
  const told = edited([{ literal: '192.0.2.53' }]);
  expect(dnsOf(told, told.subnet.get(staff.id)!).map(formatAddress)).toEqual(['192.0.2.53']);
});
