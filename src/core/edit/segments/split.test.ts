import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { formatAddress, formatPrefix, halves, parseAddress, usableRange } from '../../address';
import {
  devicesNamed,
  type Address,
  type Plan,
  type Subnet,
  addressesOf,
  boxOf,
  gatewaysOf,
  hostOf,
  subnetOf,
  vlansOf,
  withRecord,
} from '../../plan';
import { endsAt, linksAt, portsOf } from '../../model/wiring';
import { readPlanFile } from '../../formats';
import { ask } from '../../testing/asking';
import { done, emptySite, tried } from '../../testing/plans';
import { deviceNamed, portNamed, put, soundGear, vlanFor } from '../../testing/gear';
import { soundPolicy } from '../../testing/policy';
import { moreThan, runs } from '../../testing/runs';

const demos = ['1-row-house', '2-clinic', '3-creamery'].map((name) =>
  readPlanFile(readFileSync(`demo/${name}.json`, 'utf8')),
);
const upperOf = (before: Plan, after: Plan): Subnet =>
  [...after.subnet.values()].find(({ id }) => !before.subnet.get(id))!;
const fixedOf = (plan: Plan): Address[] => [...plan.address.values()].filter(({ gateway }) => !gateway);

/** Is a host alone at an access port of a box that knows VLANs? Others cannot be told apart by port. */
const isAlone = (plan: Plan, address: Address): boolean =>
  portsOf(plan, hostOf(plan, address).device.id)
    .flatMap((own) => linksAt(plan, own))
    .map(({ to }) => plan.port.get(to)!)
    .some(
      (port) =>
        port.role === 'access' && boxOf(plan, port.device)?.vlanAware && endsAt(plan, port).length === 1,
    );

/** The plan with every second host of a subnet in its upper half, from the top down; what a pool or somebody holds is skipped. */
function spread(plan: Plan, subnet: Subnet): Plan {
  const top = usableRange(subnet.prefix).last as number;
  return addressesOf(plan, subnet.id)
    .filter((address) => !address.gateway && isAlone(plan, address))
    .filter((_, i) => i % 2 === 0)
    .reduce((now, { id }, i) => {
      const to = top - 1 - i;
      const held = addressesOf(now, subnet.id).some(({ address }) => address === to);
      return held ? now : done(now, 'moveHost', { address: id, to: formatAddress(to) });
    }, plan);
}

describe('a subnet cut in two', () => {
  const staff = () => {
    const plan = done(emptySite(), 'addSegment', { purpose: 'staff', prefix: '10.20.10.0/24' });
    return { plan, subnet: subnetOf(plan, vlanFor(plan, 'staff').id, 4)! };
  };

  test('gives each half a router, and shares pool, people and things', () => {
    const { plan: bare, subnet } = staff();
    const vlan = vlanFor(bare, 'staff').id;
    const transient = { present: 25, arrivalsPerHour: 4, openHours: 8 };
    let plan = done(bare, 'edit', { table: 'vlan', id: vlan, set: { devices: 41, transient } });
    for (const { id } of plan.pool.group(subnet.id).values())
      plan = done(plan, 'removeRange', { table: 'pool', id });
    plan = done(plan, 'addPool', { subnet: subnet.id, start: '10.20.10.50', end: '10.20.10.199' });
    const after = done(plan, 'splitSubnet', { subnet: subnet.id });
    const [lower, upper] = [after.subnet.get(subnet.id)!, upperOf(plan, after)];
    expect([lower, upper].map((half) => formatPrefix(half.prefix))).toEqual([
      '10.20.10.0/25',
      '10.20.10.128/25',
    ]);
    expect(
      [lower, upper].map(({ id }) => gatewaysOf(after, id).map(({ address }) => formatAddress(address))),
    ).toEqual([['10.20.10.1'], ['10.20.10.129']]);
    const pools = ({ id }: Subnet) =>
      [...after.pool.group(id).values()].map(({ start, end }) => [formatAddress(start), formatAddress(end)]);
    expect(pools(lower)).toEqual([['10.20.10.50', '10.20.10.126']]);
    expect(pools(upper)).toEqual([['10.20.10.130', '10.20.10.199']]);
    const [one, two] = vlansOf(after);
    expect([one!.devices, two!.devices]).toEqual([20, 21]);
    expect([one!.transient, two!.transient]).toEqual([
      { present: 12, arrivalsPerHour: 2, openHours: 8 },
      { present: 13, arrivalsPerHour: 2, openHours: 8 },
    ]);
  });

  test('a router at the end stays at the end of both', () => {
    const { plan: bare, subnet } = staff();
    const plan = done(bare, 'setGateway', { subnet: subnet.id, address: '10.20.10.254' });
    const after = done(plan, 'splitSubnet', { subnet: subnet.id });
    const routers = [subnet.id, upperOf(plan, after).id].map((id) => gatewaysOf(after, id)[0]!);
    expect(routers.map(({ address }) => formatAddress(address))).toEqual(['10.20.10.126', '10.20.10.254']);
    // Each at the box’s interface in its own segment.
    expect(routers.map((one) => after.interface.get(one.interface)!.vlan)).toEqual(
      vlansOf(after).map(({ id }) => id),
    );
  });

  test('whoever stands where the halves meet is named, and nothing is done', () => {
    const { plan, subnet } = staff();
    const stuck = ['10.20.10.127', '10.20.10.128'].reduce(
      (now, address, i) => done(now, 'addHost', { subnet: subnet.id, name: `desk-${i}`, address }),
      plan,
    );
    expect(() => done(stuck, 'splitSubnet', { subnet: subnet.id })).toThrow(
      'desk-0 10.20.10.127 and desk-1 10.20.10.128 would stand where the halves meet',
    );
  });

  test('IPv6 is left whole; what holds no hosts is too small', () => {
    const { plan } = staff();
    const made = done(plan, 'addSubnet', { vlan: vlanFor(plan, 'staff').id, prefix: 'fd00:0:0:8::/64' });
    expect(() => done(made, 'splitSubnet', { subnet: upperOf(plan, made).id })).toThrow('is not split');
    const small = done(emptySite(), 'addSegment', { purpose: 'transit', prefix: '10.20.10.0/30' });
    expect(() => done(small, 'splitSubnet', { subnet: [...small.subnet.values()][0]!.id })).toThrow(
      'too small to split',
    );
  });

  test('beside IPv6 the upper half gets a network of its own, in which everybody keeps the place he had', () => {
    const { plan: four, subnet } = staff();
    const site = [...four.site.values()][0]!;
    const space = [...site.space.map(formatPrefix), 'fd00::/48'];
    const wide = done(four, 'edit', { table: 'site', id: site.id, set: { space } });
    const six = done(wide, 'addSubnet', { vlan: subnet.vlan, prefix: 'fd00:0:0:8::/64' });
    const own = upperOf(four, six);
    const added = done(six, 'addHost', { subnet: subnet.id, name: 'desk-9', address: '10.20.10.200' });
    const { device } = added.interface.get(fixedOf(added)[0]!.interface)!;
    const plan = done(added, 'addAddress', {
      device,
      subnet: own.id,
      address: 'fd00:0:0:8:200:5eff:fe00:5301',
    });
    const after = done(plan, 'splitSubnet', { subnet: subnet.id });
    const vlan = upperOf(plan, after).vlan;
    const beside = subnetOf(after, vlan, 6)!;
    expect(formatPrefix(beside.prefix)).toBe(`fd00:0:0:${after.vlan.get(vlan)!.vid.toString(16)}::/64`);
    const place = formatPrefix(beside.prefix).replace('::/64', '');
    expect(
      addressesOf(after, beside.id)
        .map(({ address }) => formatAddress(address))
        .sort(),
    ).toEqual(
      [
        formatAddress(gatewaysOf(after, beside.id)[0]!.address),
        `${place}:200:5eff:fe00:5301`.replace('fd00:0:0:', 'fd00::'),
      ].sort(),
    );
    const full = done(plan, 'edit', {
      table: 'site',
      id: site.id,
      set: { space: [...site.space.map(formatPrefix), 'fd00:0:0:8::/64'] },
    });
    expect(() => done(full, 'splitSubnet', { subnet: subnet.id })).toThrow(
      'no network beside fd00:0:0:8::/64 is free',
    );
  });

  test('a router with an address of the other family, as a file may bring it, is no stumbling block', () => {
    const { plan, subnet } = staff();
    const gateway = gatewaysOf(plan, subnet.id)[0]!;
    const astray = put(plan, 'address', gateway, { address: parseAddress('fd00::1')! });
    const after = done(astray, 'splitSubnet', { subnet: subnet.id });
    expect(gatewaysOf(after, upperOf(plan, after).id).map(({ address }) => formatAddress(address))).toEqual([
      '10.20.10.129',
    ]);
  });

  test('a server in the lower half is asked from the upper one by way of the router', () => {
    const { plan: bare, subnet } = staff();
    const served = done(bare, 'addHost', {
      subnet: subnet.id,
      name: 'server',
      kind: 'server',
      address: '10.20.10.20',
    });
    const server = fixedOf(served)[0]!.interface;
    const [pool] = served.pool.group(subnet.id).values();
    const range = { start: '10.20.10.100', end: '10.20.10.180', servedBy: [server] };
    const plan = done(served, 'edit', { table: 'pool', id: pool!.id, set: range });
    const after = done(plan, 'splitSubnet', { subnet: subnet.id });
    const router = gatewaysOf(after, upperOf(plan, after).id)[0]!.interface;
    expect([...after.relay.values()].map(({ interface: at, servers }) => [at, servers])).toEqual([
      [router, [server]],
    ]);
  });

  test('growing a subnet of IPv6 is refused, and leaves it IPv6', () => {
    const { plan } = staff();
    const made = done(plan, 'addSubnet', { vlan: vlanFor(plan, 'staff').id, prefix: 'fd00:0:0:8::/64' });
    expect(() => done(made, 'growToNeed', { subnet: upperOf(plan, made).id })).toThrow('is IPv6');
  });

  test('zone, rules and guards that speak of the one speak of both', () => {
    const sound = soundPolicy();
    const { id: vlan } = vlanFor(sound, 'cameras');
    const ruled = done(sound, 'addRule', {
      action: 'deny',
      from: [{ vlan }],
      to: [{ vlan: vlanFor(sound, 'staff').id }],
      services: [],
      note: 'cameras stay away',
    });
    const device = deviceNamed(ruled, 'sw-a').id;
    const guard = {
      raGuard: false,
      dhcp6Guard: false,
      sourceGuard: false,
      sourceGuard6: false,
      option82: false,
    };
    const plan = withRecord(ruled, 'vlanGuard', 'guard1', {
      ...guard,
      id: 'guard1',
      device,
      vlan,
      snooping: true,
      inspection: true,
    });
    const after = done(plan, 'splitSubnet', { subnet: subnetOf(plan, vlan, 4)!.id });
    const upper = upperOf(plan, after).vlan;
    const [rule] = [...after.rule.values()].filter(({ note }) => note === 'cameras stay away');
    expect(rule).toMatchObject({
      from: [{ vlan }, { vlan: upper }],
      to: [{ vlan: vlanFor(plan, 'staff').id }],
    });
    expect([...after.zone.values()].filter(({ vlans }) => vlans.includes(upper))).toEqual(
      [...after.zone.values()].filter(({ vlans }) => vlans.includes(vlan)),
    );
    const guards = [...after.vlanGuard.values()].filter((one) => one.device === device);
    expect(guards.map((one) => [one.vlan, one.snooping, one.inspection, one.raGuard])).toEqual(
      expect.arrayContaining([
        [vlan, true, true, false],
        [upper, true, true, false],
      ]),
    );
  });

  test('the new VLAN is in the trees that the other is in', () => {
    const sound = soundGear();
    const [each, mst] = ['sw-a', 'sw-b'].map((name) => deviceNamed(sound, name).id);
    let plan = done(sound, 'setBridge', { devices: [each], set: { mode: 'rstp-per-vlan' } });
    plan = done(plan, 'setInstance', { devices: [each], number: 20, priority: 4096 });
    plan = done(plan, 'setBridge', { devices: [mst], set: { mode: 'mst' } });
    plan = done(plan, 'setInstance', { devices: [mst], number: 3, vids: '20,30' });
    const cost = { ports: [portNamed(plan, 'sw-a', 9).id], instance: 20, set: { cost: 500 } };
    plan = done(plan, 'setStpPort', cost);
    const after = done(plan, 'splitSubnet', { subnet: subnetOf(plan, vlanFor(plan, 'cameras').id, 4)!.id });
    const { vid } = after.vlan.get(upperOf(plan, after).vlan)!;
    const own = (device: string | undefined) =>
      [...after.instance.values()]
        .filter((one) => one.device === device)
        .map(({ number, vids, priority }) => [number, vids, priority])
        .sort(([a], [b]) => Number(a) - Number(b));
    expect(own(each)).toEqual([
      [20, '', 4096],
      [vid, '', 4096],
    ]);
    expect(own(mst)).toEqual([[3, `20,30,${vid}`, 32_768]]);
    const costs = [...after.stpPort.values()].filter(({ port }) => port === cost.ports[0]);
    expect(costs.map(({ instance, cost: of }) => [instance, of])).toEqual(
      expect.arrayContaining([
        [20, 500],
        [vid, 500],
      ]),
    );
  });

  test.each([
    ['cam-1', 'access', 'untagged'],
    ['phone', 'voice', 'voice'],
  ] as const)(
    'the port of %s, %s, goes along, and the new segment is carried to its router',
    (name, role, field) => {
      const sound = soundGear();
      const { id } = deviceNamed(sound, name);
      const address = fixedOf(sound).find((one) => hostOf(sound, one).device.id === id)!;
      const subnet = sound.subnet.get(address.subnet)!;
      const [, high] = halves(subnet.prefix);
      const to = formatAddress((high.address as number) + 9);
      const plan = done(sound, 'moveHost', { address: address.id, to });
      const after = done(plan, 'splitSubnet', { subnet: subnet.id });
      const upper = upperOf(plan, after);
      const [port] = portsOf(plan, id).flatMap((own) => linksAt(plan, own).map((link) => link.to));
      expect(after.port.get(port!)).toMatchObject({ role, [field]: upper.vlan });
      const [router] = gatewaysOf(after, upper.id);
      expect(ask(after, name, formatAddress(router!.address), 'ping').delivered).toBe(true);
    },
  );

  test('who could talk still can and who could not cannot, but for the two halves', () => {
    let asked = 0;
    fc.assert(
      fc.property(
        fc.nat(demos.length - 1),
        fc.nat(),
        fc.array(fc.tuple(fc.nat(), fc.nat(), fc.constantFrom('tcp 443', 'ping', 'udp 53')), {
          minLength: 12,
          maxLength: 12,
        }),
        (which, at, pairs) => {
          const subnets = [...demos[which]!.subnet.values()].filter(
            ({ prefix }) => typeof prefix.address === 'number' && prefix.length < 29,
          );
          const subnet = subnets[at % subnets.length]!;
          const before = spread(demos[which]!, subnet);
          const after = tried(before, 'splitSubnet', { subnet: subnet.id });
          if (after === before) return;
          // Who is asked about by name must be the only one of it.
          const fixed = fixedOf(before).filter(
            (one) =>
              typeof one.address === 'number' &&
              devicesNamed(before, hostOf(before, one).device.name).length === 1,
          );
          const own = fixed.filter((one) => one.subnet === subnet.id && isAlone(before, one));
          if (own.length === 0) return;
          for (const [a, b, service] of pairs) {
            const [inside, other] = [own[a % own.length]!, fixed[b % fixed.length]!];
            if (other.subnet === subnet.id) continue;
            const names = [inside, other].map((one) => hostOf(before, one).device.name);
            const [from, to] = b % 2 ? names : [...names].reverse();
            const target = b % 3 ? to! : 'internet';
            const [was, is] = [before, after].map((plan) => ask(plan, from!, target, service));
            asked++;
            // What nothing but a cable or a trunk stopped may pass now: the new segment is carried where it is needed.
            if (was!.delivered ? !is!.delivered : was!.stop!.verdict && is!.delivered)
              throw new Error(
                `${from} → ${target} ${service}, split ${formatPrefix(subnet.prefix)}: was ${was!.summary}, is ${is!.summary}`,
              );
          }
        },
      ),
      { numRuns: runs(60), seed: 5 },
    );
    expect(asked).toBeGreaterThan(moreThan(100));
  });
});
