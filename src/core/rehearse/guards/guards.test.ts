import { perform } from '../../edit';
import { type Plan, applyChange, boxOf, interfacesOf, subnetOf } from '../../plan';
import { switchOnOrder, switchedOn } from '../../edit';
import { deviceNamed, portNamed, put, soundGear, vlanFor } from '../../testing/gear';
import { portGuardsOf } from '../../model/guards';
import { guardDamages, guarded, soundGuards, unbound, withReserve, withSix } from '../../testing/guards';
import { ask } from '../../testing/asking';
import { done } from '../../testing/plans';
import { discover } from '../dhcp';
import { cutOffBy, guardLine, neededNow, treeGuardsFor, wantedTrust } from '../';

const sound = soundGuards();
const bare = soundGear();
const id = (plan: Plan, name: string) => deviceNamed(plan, name).id;
const port = (plan: Plan, name: string, number: number) => portNamed(plan, name, number).id;
const asked = (plan: Plan, from: string, to: string) => ask(plan, from, to, 'ping');
const leasedAt = (plan: Plan, name: string, number: number, rogue: string | null = null) =>
  discover(plan, { at: { port: port(plan, name, number) }, mac: null, rogueAt: rogue });

describe('DHCP snooping', () => {
  test('a server plugged in at a port that is not trusted is not heard; without snooping it is', () => {
    const rogueAt = port(sound, 'sw-a', 5);
    const silent = leasedAt(sound, 'sw-b', 3, rogueAt);
    expect(silent.taken!.name).toBe('gw-1');
    expect(silent.hearings.find(({ rogue }) => rogue)).toMatchObject({
      offer: null,
      why: 'sw-a drops answers of DHCP servers at sw-a 5, which is not trusted for them',
    });
    const open = ['sw-a', 'sw-b'].reduce(
      (plan, name) => guarded(plan, name, 'staff', { snooping: false }),
      sound,
    );
    expect(leasedAt(open, 'sw-b', 3, rogueAt).summary).toMatch(/stray router in sw-a 5 answers too/);
  });

  test('where the way of the server is not trusted nobody behind it is leased anything', () => {
    const plan = done(sound, 'setPortGuards', {
      ports: [port(sound, 'sw-b', 9)],
      set: { trustsDhcp: false },
    });
    expect(leasedAt(plan, 'sw-b', 3).summary).toMatch(
      /^No address: gw-1: sw-b drops answers of DHCP servers at sw-b 9/,
    );
    expect(leasedAt(plan, 'sw-a', 5).taken!.name).toBe('gw-1');
  });

  test('a second box takes requests with option 82 for forged, and a relay does', () => {
    const plan = guarded(sound, 'sw-b', 'staff', { option82: true });
    expect(leasedAt(plan, 'sw-b', 3).summary).toMatch(/sw-a drops requests that carry option 82 at sw-a 9/);
    expect(leasedAt(guarded(sound, 'sw-a', 'staff', { option82: true }), 'sw-a', 5).taken!.name).toBe('gw-1');
    const gateway = [...sound.address.values()].find(
      ({ gateway: is, subnet }) => is && sound.subnet.get(subnet)!.vlan === vlanFor(sound, 'staff').id,
    )!;
    const [server] = interfacesOf(sound, id(sound, 'cam-1'));
    let relayed = done(guarded(sound, 'sw-a', 'staff', { option82: true }), 'setRelay', {
      interface: gateway.interface,
      servers: [server!.id],
    });
    for (const pool of sound.pool.group(subnetOf(sound, vlanFor(sound, 'staff').id, 4)!.id).values())
      relayed = put(relayed, 'pool', pool, { servedBy: [server!.id] });
    expect(leasedAt(relayed, 'sw-a', 5).summary).toMatch(/it drops requests that carry option 82 already/);
  });
});

describe('ARP inspection and source guard', () => {
  test('a fixed address passes with its binding and not without; the probe names box and port', () => {
    expect(asked(sound, 'desk', 'gw-1').works).toBe(true);
    const plan = unbound(sound);
    const answer = asked(plan, 'desk', 'gw-1');
    expect(answer.works).toBe(false);
    expect(answer.summary).toMatch(/sw-b drops its ARP at sw-b 2: sw-b has no binding for 10\./);
    // The same in the matrix: whoever is alike but bound is a class of its own.
    expect(cutOffBy(plan, [id(plan, 'sw-b')]).map(({ device }) => plan.device.get(device)!.name)).toEqual(
      expect.arrayContaining(['desk', 'till', 'cam-2']),
    );
  });

  test('who is leased an address passes where the lease was watched, and only there', () => {
    expect(asked(sound, 'leased', 'gw-1').works).toBe(true);
    const blind = guarded(sound, 'sw-b', 'staff', { snooping: false });
    expect(asked(blind, 'leased', 'gw-1').summary).toMatch(/sw-b watches no leases there/);
  });

  test('source guard stops what the gateway brings in by a port that is not trusted', () => {
    const plan = guarded(
      done(sound, 'setPortGuards', { ports: [port(sound, 'sw-a', 1)], set: { trustsDhcp: false } }),
      'sw-a',
      'cameras',
      { sourceGuard: true },
    );
    expect(asked(plan, 'desk', 'cam-1').summary).toMatch(/sw-a drops its packets at sw-a 1/);
  });

  test('over IPv6 a fixed address needs its binding, a lease needs to be watched, and who makes one for itself is cut off', () => {
    const on = { sourceGuard6: true, dhcp6Guard: true };
    const leasing = withSix(sound, 'staff', true);
    const { id: subnet } = subnetOf(leasing, vlanFor(leasing, 'staff').id, 6)!;
    const fixed = done(leasing, 'addAddress', {
      device: id(leasing, 'desk'),
      subnet,
      address: 'fd00:53:11::20',
    });
    const cutAt = (plan: Plan) =>
      cutOffBy(plan, [id(plan, 'sw-b')]).map(
        ({ device, says }) => `${plan.device.get(device)!.name} ${says}`,
      );
    const checked = guarded(fixed, 'sw-b', 'staff', on);
    expect(cutAt(checked)).toContain('desk IPv6');
    expect(cutAt(checked)).not.toContain('leased IPv6');
    expect(cutAt(guarded(checked, 'sw-b', 'staff', { dhcp6Guard: false }))).toContain('leased IPv6');
    expect(asked(checked, 'fd00:53:11::20', 'fd00:53:11::1').summary).toMatch(
      /sw-b drops its IPv6 packets at sw-b 2: sw-b has no binding for fd00:53:11::20/,
    );
    // What it needs is trusted and entered by the same change; then nobody is cut off.
    const input = { devices: [id(fixed, 'sw-b')], vlans: [vlanFor(fixed, 'staff').id], set: on };
    const whole = done(fixed, 'switchOnGuards', input);
    expect(cutAt(whole)).toEqual([]);
    expect(asked(whole, 'fd00:53:11::20', 'fd00:53:11::1').works).toBe(true);
    const announced = guarded(withSix(sound, 'staff', false), 'sw-b', 'staff', on);
    expect(cutAt(announced)).toContain('leased IPv6');
    // Without DHCPv6 guard there is nothing for it to go by.
    const off = done(whole, 'setVlanGuards', { ...input, set: { dhcp6Guard: false } });
    expect([...off.vlanGuard.values()].some(({ sourceGuard6 }) => sourceGuard6)).toBe(false);
  });

  test('somebody new gets no IPv6 address where no announcement and no lease is let through', () => {
    const trusting = done(withSix(sound, 'staff', false), 'switchOnGuards', {
      devices: [id(sound, 'sw-b')],
      vlans: [vlanFor(sound, 'staff').id],
      set: { raGuard: true },
    });
    const to = 'fd00:53:11::1';
    expect(asked(trusting, 'sw-b 3', to).works).toBe(true);
    const plan = done(trusting, 'setPortGuards', {
      ports: [port(sound, 'sw-b', 9)],
      set: { trustsRouters: false },
    });
    expect(asked(plan, 'sw-b 3', to).summary).toMatch(
      /no IPv6 address: sw-b drops router advertisements at sw-b 9, which is not trusted for them/,
    );
    // Leased an address, it still knows no router.
    const leasing = withSix(plan, 'staff', true);
    expect(asked(leasing, 'sw-b 3', to).works).toBe(true);
    expect(asked(leasing, 'sw-b 3', '2001:db8:ffff::1').works).toBe(false);
    const guardedToo = guarded(leasing, 'sw-b', 'staff', { dhcp6Guard: true });
    const untrusted = done(guardedToo, 'setPortGuards', {
      ports: [port(sound, 'sw-b', 9)],
      set: { trustsDhcp: false },
    });
    expect(asked(untrusted, 'sw-b 3', to).works).toBe(false);
  });

  test('a box whose model cannot watch stops nothing', () => {
    const unable = put(sound, 'box', boxOf(sound, id(sound, 'sw-b'))!, { snooping: false });
    const plan = unbound(unable, 'sw-b');
    expect(cutOffBy(plan, [id(plan, 'sw-b')])).toEqual([]);
  });
});

describe('trust, worked out from the cabling', () => {
  test('is wanted where servers and other guarding boxes come in, also by a way in reserve', () => {
    const wanted = wantedTrust(sound, id(sound, 'sw-b'));
    expect([...wanted.dhcp]).toEqual([port(sound, 'sw-b', 9)]);
    expect([...wanted.arp]).toEqual([port(sound, 'sw-b', 9)]);
    expect([...wantedTrust(sound, id(sound, 'sw-a')).dhcp]).toEqual([port(sound, 'sw-a', 1)]);
    const spare = withReserve(sound);
    expect(new Set(wantedTrust(spare, id(spare, 'sw-b')).dhcp)).toEqual(
      new Set([port(spare, 'sw-b', 9), port(spare, 'sw-b', 5)]),
    );
    expect(neededNow(spare, id(spare, 'sw-b')).dhcp.size).toBe(1);
    // With a second way of its own from the gateway, the gateway may come to sw-a by sw-b as well.
    const ring = guardDamages.secondWay!(sound, 0, 0);
    expect(new Set(wantedTrust(ring, id(ring, 'sw-a')).dhcp)).toEqual(
      new Set([port(ring, 'sw-a', 1), port(ring, 'sw-a', 9)]),
    );
  });

  test('members of a bundle are one port: what is set at one holds for all', () => {
    const spare = withReserve(sound);
    const plan = done(spare, 'bundleLinks', {
      sides: [
        [port(spare, 'sw-a', 9), port(spare, 'sw-a', 6)],
        [port(spare, 'sw-b', 9), port(spare, 'sw-b', 5)],
      ],
    });
    const members = [port(plan, 'sw-b', 5), port(plan, 'sw-b', 9)];
    expect(new Set(wantedTrust(plan, id(plan, 'sw-b')).dhcp)).toEqual(new Set(members));
    // One of the two was trusted before they were one.
    expect(members.map((one) => portGuardsOf(plan, one).trustsDhcp)).toEqual([true, true]);
    const ended = done(plan, 'setPortGuards', { ports: [members[0]!], set: { trustsDhcp: false } });
    expect(members.map((one) => portGuardsOf(ended, one).trustsDhcp)).toEqual([false, false]);
    expect(leasedAt(ended, 'sw-b', 3).taken).toBeNull();
    const mended = done(ended, 'setPortGuards', { ports: [members[1]!], set: { trustsDhcp: true } });
    expect(leasedAt(mended, 'sw-b', 3).taken!.name).toBe('gw-1');
    expect(mended.portGuard.size).toBe(ended.portGuard.size);
  });

  test('the line of a box says of each port who passes and who is cut off', () => {
    const plan = unbound(sound);
    const at = guardLine(plan, id(plan, 'sw-b')).find((one) => one.port.number === 2)!;
    expect(at.seen.map(({ sight, why }) => [plan.device.get(sight.device)!.name, why !== null])).toEqual(
      expect.arrayContaining([
        ['desk', true],
        ['till', true],
      ]),
    );
    expect(at.expected).toBe(3);
  });
});

describe('switching on', () => {
  const input = {
    devices: ['sw-a', 'sw-b'].map((name) => id(bare, name)),
    vlans: ['cameras', 'staff'].map((purpose) => vlanFor(bare, purpose).id),
    set: { snooping: true, inspection: true, sourceGuard: true },
  };
  test('as it is cuts off whoever is not known; with what it needs, nobody', () => {
    const cut = cutOffBy(switchedOn(bare, input, false), input.devices);
    expect(cut.map(({ device }) => bare.device.get(device)!.name)).toEqual(
      expect.arrayContaining(['cam-1', 'cam-2', 'desk', 'till']),
    );
    expect(cutOffBy(switchedOn(bare, input, true), input.devices)).toEqual([]);
  });

  test('the order trusts first, checks last, and waits for leases between', () => {
    const order = switchOnOrder(bare, switchedOn(bare, input, true)).map(({ what }) => what);
    expect(order).toEqual([
      expect.stringMatching(/^Trust sw-a 1, 9, sw-b 9$/),
      expect.stringMatching(/^Enter \d+ bindings at sw-a, sw-b$/),
      'DHCP snooping on at sw-a, sw-b: Cameras, Staff',
      expect.stringMatching(/^Wait \d+ (hours|minutes), or let every client ask again$/),
      'ARP inspection on at sw-a, sw-b: Cameras, Staff',
      'Source guard on at sw-a, sw-b: Cameras, Staff',
    ]);
  });

  test('trusts and binds for the segments that were asked for, and for no others', () => {
    const first = done(bare, 'setVlanGuards', { ...input, vlans: [input.vlans[0]!] });
    const plan = done(first, 'switchOnGuards', { ...input, vlans: [input.vlans[1]!] });
    const segments = [...plan.binding.values()].map(
      ({ address }) => plan.subnet.get(plan.address.get(address)!.subnet)!.vlan,
    );
    expect(new Set(segments)).toEqual(new Set([input.vlans[1]]));
    expect(cutOffBy(plan, input.devices).map(({ device }) => plan.device.get(device)!.name)).toEqual(
      expect.arrayContaining(['cam-1', 'cam-2']),
    );
  });

  test('a box that cannot watch is refused, and named', () => {
    const call = {
      operation: 'setVlanGuards',
      input: { devices: [id(bare, 'hub')], vlans: [input.vlans[0]!], set: { snooping: true } },
    } as const;
    expect(() => applyChange(bare, perform(bare, call, 'x'))).toThrow(/^hub cannot watch what its ports say/);
  });
});

test('guards of the tree: BPDU guards at devices, root guards where the root is never behind', () => {
  const named = (device: string) =>
    treeGuardsFor(bare, id(bare, device)).map(
      ({ port: at, guard }) => `${bare.port.get(at)!.number} ${guard}`,
    );
  expect(named('sw-b')).toEqual(expect.arrayContaining(['1 bpdu']));
  expect(named('sw-a')).toEqual(expect.arrayContaining(['3 bpdu', '4 bpdu']));
  expect(named('sw-b').filter((text) => text.startsWith('9 '))).toEqual([]);
});
