import { formatAddress } from '../address';
import { type Plan, gatewaysOf, subnetOf } from '../plan';
import { portsOf } from '../model/wiring';
import { deviceNamed, portNamed, put, soundGear, vlanFor } from '../testing/gear';
import { cardOf } from '../testing/internet';
import { done } from '../testing/plans';
import { soundPolicy, zoneNamed } from '../testing/policy';
import { intruderReach } from './intruder';
import { plugIn } from './plug-in';
import { probe } from './probe';

const sound = soundGear();
const staff = subnetOf(sound, vlanFor(sound, 'staff').id, 4)!;
const poolIn = (plan: Plan) => [...plan.pool.group(staff.id).values()][0]!;
const add = (plan: Plan, name: string, model: string) =>
  done(plan, 'addDevice', { name, model: { shelf: model } });
const sentence = (plan: Plan, name: string, number: number) =>
  plugIn(plan, { port: portNamed(plan, name, number).id }).sentence;
describe('plug in here and…', () => {
  test('who tags frames is in all that the port carries, as one who takes over what is plugged in there', () => {
    const names = (vlans: readonly { readonly name: string }[]) => vlans.map(({ name }) => name).sort();
    const at = portNamed(sound, 'sw-a', 2);
    const { vlan, byTagging } = plugIn(sound, { port: at.id });
    const { inside } = intruderReach(sound, deviceNamed(sound, 'ap').id);
    const beside = names(byTagging);
    expect(beside.length).toBeGreaterThan(0);
    expect(names([...(vlan ? [vlan] : []), ...byTagging])).toEqual(names(inside.map((each) => each.vlan)));
    expect(plugIn(sound, { port: portNamed(sound, 'sw-a', 3).id }).byTagging).toEqual([]);
  });
  test('segment, lease and gateway in one sentence', () =>
    expect(sentence(sound, 'sw-b', 2)).toMatch(
      /^you land in Staff, get 10\.20\.\d+\.\d+–10\.20\.\d+\.\d+ from gw-1 and have 10\.20\.\d+\.1 on gw-1 as gateway$/,
    ));
  test('behind a switch without VLANs it is the segment of the port that feeds it', () =>
    expect(sentence(sound, 'hub', 4)).toMatch(/^you land in Staff, get /));
  test('a switch that is joined to nothing reaches only its like', () =>
    expect(sentence(add(sound, 'loose', 'plain-5'), 'loose', 1)).toContain(
      'only what is plugged into this box',
    ));
  test('where nothing is leased an address is to be set by hand', () =>
    expect(sentence(sound, 'sw-a', 3)).toMatch(/set an address of 10\.20\.\d+\.0\/24 yourself/));
  test('a server that is not reached gives no address', () => {
    const cut = done(sound, 'carryVlans', {
      ports: [portNamed(sound, 'gw-1', 2).id],
      vlan: vlanFor(sound, 'staff').id,
      carry: false,
    });
    const found = plugIn(cut, { port: portNamed(cut, 'sw-b', 2).id });
    expect(found).toMatchObject({ works: false, vlan: vlanFor(sound, 'staff') });
    expect(found.sentence).toMatch(
      /get no address: VLAN \d+ is not carried to gw-1: gw-1 2 would have to and do not reach the gateway gw-1$/,
    );
  });
  test('a server whose ports nobody recorded leaves it open', () => {
    const plan = done(sound, 'addHost', {
      subnet: staff.id,
      name: 'leaser',
      kind: 'server',
    });
    const pool = poolIn(plan);
    const item = [...plan.interface.values()].find((card) => card.device === deviceNamed(plan, 'leaser').id)!;
    const moved = done(plan, 'edit', { table: 'pool', id: pool.id, set: { servedBy: [item.id] } });
    expect(sentence(moved, 'sw-b', 2)).toContain(
      'from leaser (if it is reached: its ports are not recorded)',
    );
  });
  test('no plug fits the inside of a box, the socket of a device or a broken port', () => {
    expect(plugIn(sound, { port: portsOf(sound, deviceNamed(sound, 'sw-a').id)[0]!.id }).sentence).toContain(
      'the inside of the box',
    );
    expect(sentence(sound, 'cam-1', 1)).toContain('the socket of a device');
    const broken = done(sound, 'edit', {
      table: 'port',
      id: portNamed(sound, 'sw-a', 3).id,
      set: { defective: true },
    });
    expect(sentence(broken, 'sw-a', 3)).toContain('marked defective');
  });

  const central = (plan: Plan) => {
    const served = put(plan, 'pool', poolIn(plan), { servedBy: [cardOf(plan, 'cam-1').id] });
    const [gateway] = gatewaysOf(served, staff.id);
    return done(served, 'setRelay', { interface: gateway!.interface, servers: [cardOf(plan, 'cam-1').id] });
  };
  const ask = (plan: Plan, number: number) =>
    probe(plan, {
      from: { port: portNamed(plan, 'sw-b', number).id },
      to: { internet: true },
      wanted: { protocol: 'tcp', port: 443 },
    });
  test('a server in another segment leases by way of a relay, and a question from there has that address', () => {
    const plan = central(sound);
    expect(sentence(plan, 'sw-b', 2)).toMatch(/get \S+ from cam-1 by way of gw-1 and have/);
    expect(ask(plan, 2)).toMatchObject({ delivered: true });
    expect(ask(plan, 2).forth[0]!.left).toContain(`${formatAddress(poolIn(plan).start)} → `);
    // Without the gateway the server does not know the way back.
    const lost = put(plan, 'interface', cardOf(plan, 'cam-1'), { ownGateway: 0 });
    expect(ask(lost, 2).summary).toMatch(
      /^Stopped at the sender: no address: cam-1: the relay gets no answer: cam-1: it has no gateway/,
    );
  });
  test('a gateway that keeps DHCP out leases nothing', () => {
    const policy = soundPolicy();
    const [from, to] = [zoneNamed(policy, 'Staff').id, zoneNamed(policy, 'Gateway').id];
    const pairs = [{ from, to }];
    const plan = done(policy, 'decidePairs', { pairs, decision: 'services', services: ['stddns'] });
    expect(sentence(plan, 'sw-b', 2)).toContain(
      'get no address: gw-1: its filter drops the question: Staff to Gateway: only DNS',
    );
    expect(ask(plan, 2).summary).toMatch(/^Stopped at the sender: no address: gw-1: its filter/);
  });
  test('a port that hears another VLAN than it speaks in has no lease', () => {
    const plan = put(sound, 'port', portNamed(sound, 'sw-b', 2), {
      untagged: vlanFor(sound, 'guest').id,
      ingressFilter: false,
    });
    expect(sentence(plan, 'sw-b', 2)).toMatch(
      /get no address: gw-1: its answer does not get back: .* and are not answered by the gateway gw-1$/,
    );
  });
});
