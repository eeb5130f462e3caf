import { formatAddress } from '../address';
import { type Device, type Plan, addressesOn, interfacesOf } from '../plan';
import { linksOf, portsOf } from '../model/wiring';
import { deviceNamed, put, vlanFor } from '../testing/gear';
import { done, prefix } from '../testing/plans';
import { soundPolicy } from '../testing/policy';
import { ask } from '../testing/asking';

const sound = soundPolicy();
const firewall = (name: string, value: Device['firewall'], plan = sound) =>
  put(plan, 'device', deviceNamed(plan, name)!, { firewall: value });
const listed = (plan: Plan, name: string, port: number) =>
  done(plan, 'addListener', { device: deviceNamed(plan, name)!.id, port });

describe('what a host itself makes of a question', () => {
  test('it answers from its own network only', () => {
    const plan = firewall('cam-1', 'own-subnet');
    expect(ask(plan, 'cam-2', 'cam-1', 'ping').works).toBe(true);
    const answer = ask(plan, 'till', 'cam-1', 'camera pictures');
    expect(answer.summary).toBe(
      'Stopped at cam-1: its own firewall lets in nobody from outside its own network',
    );
    expect(answer.remedies).toEqual([]);
  });
  test('what comes back to it is no question', () =>
    expect(ask(firewall('desk', 'own-subnet'), 'desk', 'internet', 'HTTPS').works).toBe(true));
  test('it lets in what is listed, and no ping', () => {
    const shut = firewall('cam-1', 'as-listed');
    expect(ask(shut, 'cam-2', 'cam-1', 'camera pictures').summary).toMatch(
      /lets in what is listed, and nothing is$/,
    );
    const open = listed(shut, 'cam-1', 554);
    expect(ask(open, 'cam-2', 'cam-1', 'camera pictures').works).toBe(true);
    expect(ask(open, 'cam-2', 'cam-1', 'ping').summary).toMatch(/and no ping$/);
  });
  test('where its services are listed, nothing else listens', () => {
    const plan = listed(sound, 'cam-1', 80);
    expect(ask(plan, 'cam-2', 'cam-1', 'tcp 80').works).toBe(true);
    expect(ask(plan, 'cam-2', 'cam-1', 'camera pictures').summary).toBe(
      'Stopped at cam-1: nothing there listens on tcp 554; listed is tcp 80',
    );
    expect(ask(plan, 'cam-2', 'cam-1', 'ping').works).toBe(true);
  });
  test('where nobody recorded a firewall, a ping that fails points to it', () => {
    expect(ask(sound, 'cam-2', 'cam-1', 'ping').caution).toMatch(/look at cam-1’s own firewall first/);
    expect(ask(sound, 'cam-2', 'cam-1', 'tcp 80').caution).toBeNull();
    expect(ask(firewall('cam-1', 'none'), 'cam-2', 'cam-1', 'ping').caution).toBeNull();
  });
});

describe('settings that are wrong are named as the cause', () => {
  const card = (plan: Plan, name: string) => interfacesOf(plan, deviceNamed(plan, name)!.id)[0]!;
  test('a mask that is too short takes others for neighbours', () => {
    const plan = put(sound, 'interface', card(sound, 'till'), { ownLength: 8 });
    const { summary, remedies } = ask(plan, 'till', 'cam-1', 'camera pictures');
    const [target] = addressesOn(plan, card(plan, 'cam-1').id);
    const { length } = plan.subnet.get(addressesOn(plan, card(plan, 'till').id)[0]!.subnet)!.prefix;
    expect(summary).toBe(
      `Stopped at till: its mask is /8 and should be /${length}, so it takes ${formatAddress(target!.address)} for a neighbour and does not ask its gateway`,
    );
    expect(remedies.map(({ operation }) => operation)).toEqual(['useSubnetSettings']);
  });
  test('also where the answer has to come back', () => {
    const plan = put(sound, 'interface', card(sound, 'cam-1'), { ownLength: 8 });
    expect(ask(plan, 'till', 'cam-1', 'camera pictures').summary).toMatch(
      /^The question arrives, the answer does not: cam-1: its mask is \/8/,
    );
  });
  test('a DNS server of its own that nobody is', () => {
    const wrong = [prefix('10.20.99.99/32').address];
    const plan = put(sound, 'interface', card(sound, 'desk'), { ownDns: wrong });
    const { works, caution } = ask(plan, 'desk', 'internet', 'HTTPS');
    expect([works, caution]).toEqual([
      true,
      'By address only: its own DNS server 10.20.99.99 does not answer, so no name is resolved',
    ]);
    const far = put(plan, 'interface', card(plan, 'desk'), { ownDns: [prefix('198.51.100.53/32').address] });
    expect(ask(far, 'desk', 'internet', 'HTTPS').caution).toBeNull();
  });
});

describe('a telephone that tags', () => {
  const socket = (plan: Plan) =>
    portsOf(plan, deviceNamed(plan, 'phone')!.id)
      .map(({ id }) => plan.port.get(id)!)
      .find(({ id }) => linksOf(plan).has(id))!;
  test('hears the VLAN announced to it and no other tag', () => {
    expect(ask(sound, 'gw-1', 'phone', 'ping').works).toBe(true);
    const at = sound.port.get(linksOf(sound).get(socket(sound).id)![0]!.to)!;
    const other = vlanFor(sound, 'staff');
    const plan = put(sound, 'port', at, { voice: other.id, tagged: [...at.tagged, other.id] });
    expect(ask(plan, 'gw-1', 'phone', 'ping').works).toBe(false);
  });
  test('takes untagged frames or not, by its record', () => {
    const at = sound.port.get(linksOf(sound).get(socket(sound).id)![0]!.to)!;
    const plain = put(sound, 'port', at, {
      role: 'access',
      untagged: at.voice,
      pvid: at.voice,
      voice: null,
      tagged: [],
      accepts: 'all',
    });
    expect(ask(plain, 'gw-1', 'phone', 'ping').works).toBe(true);
    const tagsOnly = put(plain, 'port', socket(plain), { accepts: 'tagged' });
    expect(ask(tagsOnly, 'gw-1', 'phone', 'ping').summary).toMatch(/phone takes tagged frames only/);
  });
});
