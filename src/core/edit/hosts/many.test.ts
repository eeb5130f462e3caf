import fc from 'fast-check';
import { contains } from '../../address';
import { type Plan, Refusal, addressesOf, hostOf, subnetOf, vlansOf } from '../../plan';
import { build, damagedSite, done } from '../../testing/plans';
import { moreThan, runs } from '../../testing/runs';

const fixedIn = (plan: Plan, subnet: string) => addressesOf(plan, subnet).filter(({ gateway }) => !gateway);

test('hosts moved together get free addresses of the other subnet, all of them or none', () => {
  let [moved, refused] = [0, 0];
  fc.assert(
    fc.property(damagedSite, fc.nat(30), fc.nat(30), (site, a, b) => {
      const plan = build(site);
      const subnets = [...plan.subnet.values()];
      const [from, to] = [subnets[a % subnets.length], subnets[b % subnets.length]];
      if (!from || !to || from.id === to.id) return;
      const hosts = fixedIn(plan, from.id);
      if (hosts.length === 0) return;
      const taken = new Set(addressesOf(plan, to.id).map(({ address }) => address));
      let after: Plan;
      try {
        after = done(plan, 'moveHostsToSubnet', { addresses: hosts.map(({ id }) => id), subnet: to.id });
      } catch (error) {
        expect(error).toBeInstanceOf(Refusal);
        expect((error as Refusal).code).toBe('no-room');
        refused++;
        return;
      }
      const places = hosts.map(({ id }) => after.address.get(id)!);
      moved += places.length;
      for (const { subnet, address } of places) {
        expect(subnet).toBe(to.id);
        expect(contains(to.prefix, address)).toBe(true);
        expect(taken.has(address)).toBe(false);
        taken.add(address);
      }
      expect(fixedIn(after, from.id)).toEqual([]);
    }),
    { numRuns: runs(200), seed: 19 },
  );
  expect(moved).toBeGreaterThan(moreThan(50));
  expect(refused).toBeGreaterThan(0);
});

test('who is there already is not moved, and that is said', () => {
  const plan = build({
    numbering: 'third-octet',
    sizing: 'need',
    fixed: 'outside-pool',
    segments: ['staff', 'cameras'],
    hosts: [],
    damage: [],
  } as never);
  const [staff, cameras] = vlansOf(plan).map(({ id }) => subnetOf(plan, id, 4)!.id);
  let next = done(plan, 'addHost', { subnet: staff!, name: 'desk', kind: 'computer' });
  const [desk] = fixedIn(next, staff!).filter((address) => hostOf(next, address).device.name === 'desk');
  expect(() => done(next, 'moveHostsToSubnet', { addresses: [desk!.id], subnet: staff! })).toThrow(
    /They are in .* already/,
  );
  next = done(next, 'setKindOfHosts', { addresses: [desk!.id], kind: 'camera' });
  next = done(next, 'moveHostsToSubnet', { addresses: [desk!.id], subnet: cameras! });
  expect(hostOf(next, next.address.get(desk!.id)!).device.kind).toBe('camera');
  expect(fixedIn(next, cameras!).map((address) => hostOf(next, address).device.name)).toContain('desk');
  next = done(next, 'setFirewallOfHosts', { addresses: [desk!.id], firewall: 'own-subnet' });
  expect(hostOf(next, next.address.get(desk!.id)!).device.firewall).toBe('own-subnet');
  next = done(next, 'addHost', { subnet: cameras!, name: 'door', kind: 'camera' });
  const both = fixedIn(next, cameras!).map(({ id }) => id);
  next = done(next, 'listOnHosts', { addresses: [desk!.id], protocol: 'tcp', port: 554 });
  next = done(next, 'listOnHosts', { addresses: both, protocol: 'tcp', port: 554 });
  expect([...next.listener.values()].map(({ device }) => next.device.get(device)!.name).sort()).toEqual([
    'desk',
    'door',
  ]);
  expect(() => done(next, 'listOnHosts', { addresses: both, protocol: 'both', port: 554 })).toThrow(
    'All of them list tcp+udp 554 already.',
  );
});
