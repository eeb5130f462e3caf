import { formatAddress } from '../address';
import { type Plan, subnetOf } from '../plan';
import { portNamed, put, soundGear, vlanFor } from '../testing/gear';
import { cardOf } from '../testing/internet';
import { done } from '../testing/plans';
import { discover } from './dhcp';

const sound = soundGear();
const port = (name: string, number: number) => portNamed(sound, name, number).id;
const at = (plan: Plan, name: string, number: number, fields: { mac?: string; rogueAt?: string } = {}) =>
  discover(plan, {
    at: { port: port(name, number) },
    mac: fields.mac ?? null,
    rogueAt: fields.rogueAt ?? null,
  });
const staff = vlanFor(sound, 'staff');
const cameras = vlanFor(sound, 'cameras');
const lan = subnetOf(sound, staff.id, 4)!;
const poolOf = (plan: Plan, subnet: string) => [...plan.pool.group(subnet).values()][0]!;

describe('a client at a port', () => {
  test('gets address, mask, gateway and DNS from the server of its segment, several boxes away', () => {
    const { vlan, taken, summary } = at(sound, 'sw-b', 2);
    expect(vlan!.id).toBe(staff.id);
    expect(taken).toMatchObject({ name: 'gw-1', by: null, rogue: false });
    const pool = poolOf(sound, lan.id);
    expect(taken!.offer).toMatchObject({ address: pool.start, length: 24, seconds: pool.lease });
    expect(formatAddress(taken!.offer!.gateway!)).toMatch(/\.1$/);
    expect(summary).toMatch(/^10\.\S+\/24 from gw-1, from the pool /);
  });

  test('gets what is reserved for its MAC address, whatever the pool holds', () => {
    let plan = done(sound, 'addHost', {
      subnet: lan.id,
      name: 'kept',
      kind: 'printer',
      assignment: 'reservation',
      mac: '00:00:5E:00:53:77',
    });
    plan = put(plan, 'pool', poolOf(plan, lan.id), { end: poolOf(plan, lan.id).start });
    expect(at(plan, 'sw-b', 2, { mac: '00:00:5E:00:53:77' }).taken!.why).toBe('reserved for kept');
    expect(at(plan, 'sw-b', 2, { mac: '00:00:5E:00:53:78' }).taken!.why).toMatch(/^from the pool/);
  });

  test('gets nothing where the VLAN is not carried, and the remedy carries it', () => {
    const trunk = portNamed(sound, 'sw-b', 9);
    const plan = put(sound, 'port', trunk, { tagged: trunk.tagged.filter((id) => id !== staff.id) });
    const { taken, summary, remedies } = at(plan, 'sw-b', 2);
    expect(taken).toBeNull();
    expect(summary).toMatch(/^No address: VLAN \d+ is not carried to gw-1: sw-b 9 would have to$/);
    const mended = done(plan, remedies[0]!.operation, remedies[0]!.input);
    expect(at(mended, 'sw-b', 2).taken!.name).toBe('gw-1');
  });

  test('gets nothing from a pool in which no address is free', () => {
    const pool = poolOf(sound, lan.id);
    const plan = done(sound, 'addExclusion', {
      subnet: lan.id,
      start: formatAddress(pool.start),
      end: formatAddress(pool.end),
      why: 'kept for later',
    });
    const { taken, summary, remedies } = at(plan, 'sw-b', 2);
    expect(taken).toBeNull();
    expect(summary).toBe('No address: gw-1: the pool is exhausted: no address in it is free');
    expect(remedies.map(({ operation }) => operation)).toEqual(['widenPool']);
  });

  test('gets nothing where no server or pool is, and at a port that is off', () => {
    const unserved = put(sound, 'pool', poolOf(sound, lan.id), { servedBy: [] });
    expect(at(unserved, 'sw-b', 2).summary).toBe(`No address: the pool of ${staff.name} has no server`);
    expect(at(sound, 'sw-b', 3).summary).toBe('No address: nothing happens: the port is parked');
  });

  test('needs a relay where the server stands in another segment, and the relay a way there', () => {
    const server = cardOf(sound, 'cam-1').id;
    const plan = put(sound, 'pool', poolOf(sound, lan.id), { servedBy: [server] });
    const { summary, remedies } = at(plan, 'sw-b', 2);
    expect(summary).toBe(
      `No address: cam-1 stands in another segment, and no relay in ${staff.name} passes the discover on`,
    );
    const relayed = done(plan, remedies[0]!.operation, remedies[0]!.input);
    expect(at(relayed, 'sw-b', 2).taken).toMatchObject({ name: 'cam-1', by: 'gw-1' });
    const cut = put(relayed, 'port', portNamed(relayed, 'sw-a', 3), { enabled: false });
    expect(at(cut, 'sw-b', 2).summary).toMatch(/^No address: cam-1: the relay does not get through: /);
    const none = done(relayed, 'setRelay', {
      interface: [...relayed.relay.values()][0]!.interface,
      servers: [],
    });
    expect(none.relay.size).toBe(0);
  });

  test('hears a server somebody brought along, in the same segment only', () => {
    const rogue = at(sound, 'sw-b', 2, { rogueAt: port('sw-a', 4) });
    expect(rogue.hearings.map(({ rogue: own }) => own)).toEqual([false, true]);
    expect(rogue.summary).toMatch(/the stray router in sw-a 4 answers too/);
    expect(at(sound, 'sw-b', 2, { rogueAt: port('sw-a', 3) }).hearings).toHaveLength(1);
  });

  test('two servers that know nothing of each other are both told', () => {
    const second = cardOf(sound, 'till').id;
    const pool = poolOf(sound, lan.id);
    const plan = put(sound, 'pool', pool, { servedBy: [...pool.servedBy, second] });
    expect(at(plan, 'sw-a', 4).summary).toMatch(/gw-1 and till both answer$/);
  });

  test('cameras are led to their own addresses; the port decides, not the cable', () => {
    expect(at(sound, 'sw-b', 1).vlan!.id).toBe(cameras.id);
  });
});
