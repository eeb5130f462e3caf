import { type Plan, subnetOf } from '../plan';
import { deviceNamed, portNamed, soundGear, vlanFor } from '../testing/gear';
import { uplinkNamed } from '../testing/internet';
import { done, emptySite } from '../testing/plans';
import { soundPolicy } from '../testing/policy';
import { soundTrees } from '../testing/trees';
import { questionFields } from './questions/ask';
import { typedCable } from '../edit';
import { treesOf } from '../model/tree';
import { type Fault, faultTitle, singleFaultsOf } from './faults';
import { intruderReach } from './intruder';
import { allSingleFaults, singleFaults } from './single-faults';
import { typedReceiver, typedSender, typedWanted } from './typed';
import { typedFault } from './typed-fault';
import { whatIf } from './what-if';

const TODAY = '2026-05-04';
const names = (list: readonly { readonly name: string }[]) => list.map(({ name }) => name);

/** The ring with a camera at its far box, and questions that are kept. */
function ring(): Plan {
  let plan = soundTrees();
  plan = done(plan, 'addHost', {
    subnet: subnetOf(plan, vlanFor(plan, 'cameras').id, 4)!.id,
    name: 'cam-far',
    kind: 'camera',
    assignment: 'static',
  });
  plan = done(plan, 'assignPorts', {
    ports: [portNamed(plan, 'sw-c', 1).id],
    role: 'access',
    vlan: vlanFor(plan, 'cameras').id,
  });
  plan = done(plan, 'connect', typedCable(plan, 'sw-c 1 = cam-far'));
  for (const [from, to, expected] of [
    ['desk', 'internet', 'delivered'],
    ['cam-far', 'cam-2', 'delivered'],
  ] as const)
    plan = done(plan, 'addQuestion', {
      ...questionFields({
        from: typedSender(plan, from),
        to: typedReceiver(plan, to),
        wanted: typedWanted(plan, 'HTTPS'),
      }),
      expected,
      why: '',
    });
  return plan;
}
const cableAt = (plan: Plan, name: string, number: number): Fault => {
  const { id } = portNamed(plan, name, number);
  return {
    kind: 'cable',
    cable: [...plan.cable.values()].find(({ from, to }) => from === id || to === id)!.id,
  };
};
const off = (plan: Plan, name: string): Fault => ({ kind: 'box', device: deviceNamed(plan, name).id });

describe('what if', () => {
  const plan = ring();

  test('a link of the ring breaks: nobody is cut off, some take another way', () => {
    const impact = whatIf(plan, [cableAt(plan, 'sw-a', 9)], TODAY);
    expect(names(impact.cutOff)).toEqual([]);
    expect(impact.answers).toEqual([]);
    expect(names(impact.rerouted)).toEqual(['cam-2', 'desk', 'till']);
  });

  test('the blocked link goes: nothing changes at all', () => {
    const [blocked] = treesOf(plan).blocked.keys();
    const { number, device } = plan.port.get(blocked!)!;
    const impact = whatIf(plan, [cableAt(plan, plan.device.get(device)!.name, number)], TODAY);
    expect(impact).toEqual({
      air: [],
      cutOff: [],
      joined: [],
      rerouted: [],
      answers: [],
      lost: [],
      intruders: [],
      roots: [],
      watched: { devices: 6, questions: 3, services: 2 },
    });
  });

  test('of an empty plan nothing can be lost, and the count says so', () => {
    const bare = emptySite();
    const [gateway] = [...bare.device.values()];
    expect(whatIf(bare, [{ kind: 'box', device: gateway!.id }], TODAY).watched).toEqual({
      devices: 0,
      questions: 0,
      services: 0,
    });
  });

  test('two links at once cut off what is beyond them', () => {
    const impact = whatIf(plan, [cableAt(plan, 'sw-c', 9), cableAt(plan, 'sw-c', 10)], TODAY);
    expect(names(impact.cutOff)).toEqual(['cam-far']);
    expect(impact.answers.map(({ after }) => after.delivered)).toEqual([false]);
  });

  test('a box without power takes with it who hangs on it; the root is another', () => {
    const impact = whatIf(plan, [off(plan, 'sw-a')], TODAY);
    expect(names(impact.cutOff)).toEqual(['cam-1', 'cam-2', 'cam-far', 'desk', 'phone', 'till']);
    expect(impact.roots).toEqual([{ tree: 'the common tree', before: 'sw-a', after: 'sw-b' }]);
    expect(whatIf(plan, [off(plan, 'sw-c')], TODAY).roots).toEqual([]);
  });

  test('a plug moved into the wrong port, and back', () => {
    const from = portNamed(plan, 'sw-b', 1).id;
    const to = portNamed(plan, 'sw-b', 2).id;
    const hub = cableAt(plan, 'sw-b', 2);
    const cable = cableAt(plan, 'sw-b', 1) as { cable: string };
    const impact = whatIf(plan, [hub, { kind: 'plug', cable: cable.cable, from, to }], TODAY);
    expect(names(impact.cutOff)).toEqual(['cam-2', 'desk', 'till']);
    expect(faultTitle(plan, { kind: 'plug', cable: cable.cable, from, to })).toBe(
      'the plug in sw-b 1 moved to sw-b 2',
    );
    expect(plan.cable.get(cable.cable)!.from === from || plan.cable.get(cable.cable)!.to === from).toBe(true);
  });

  test('an uplink fails: its forwards, tunnels and telephones are named', () => {
    const policy = soundPolicy();
    const uplinks = [...policy.uplink.values()].filter(({ enabled }) => enabled).map(({ id }) => id);
    const impact = whatIf(
      policy,
      uplinks.map((uplink) => ({ kind: 'uplink', uplink })),
      TODAY,
    );
    expect(impact.lost.join()).toMatch(/telephones in/);
    expect(impact.cutOff).toEqual([]);
    expect(uplinkNamed(policy, 'fibre').enabled).toBe(true);
  });
});

describe('single faults', () => {
  const plan = ring();
  const ranked = allSingleFaults(plan, TODAY);

  test('all are run, each as if asked alone, the worst first', () => {
    expect(ranked).toHaveLength(singleFaultsOf(plan).length);
    for (const { fault, cutOff, answers, lost } of ranked) {
      const impact = whatIf(plan, [fault], TODAY);
      expect(names(impact.cutOff)).toEqual(cutOff);
      expect(impact.answers).toHaveLength(answers);
      expect(impact.lost).toEqual(lost);
    }
    const sizes = ranked.map(({ cutOff }) => cutOff.length);
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
  });

  test('single points of failure say what would remove them; a ring needs nothing', () => {
    const cure = (fault: Fault) =>
      ranked.find((item) => JSON.stringify(item.fault) === JSON.stringify(fault))!.cure;
    expect(cure(cableAt(plan, 'sw-a', 9))).toBe('');
    expect(cure(cableAt(plan, 'sw-a', 1))).toBe('a second link on another route: gw-1 6 to sw-a 8');
    expect(cure(off(plan, 'gw-1'))).toBe('a second gateway that takes over the addresses of gw-1');
    expect(cure(off(plan, 'sw-a'))).toMatch(/^a link between /);
    expect(cure(off(plan, 'sw-c'))).toBe(
      'a spare of sw-c ready, and what must not stop plugged into two boxes',
    );
  });

  test('progress is told after each, and whoever asks may stop', () => {
    const run = singleFaults(plan, TODAY);
    expect(run.next().value).toEqual({ done: 1, of: ranked.length });
    expect(run.next().value).toEqual({ done: 2, of: ranked.length });
    expect(run.return([]).done).toBe(true);
  });
});

describe('an intruder', () => {
  test('in a camera stands in its segment; in a switch in all that reach it', () => {
    const plan = soundGear();
    const inside = (name: string) =>
      intruderReach(plan, deviceNamed(plan, name).id).inside.map(({ vlan }) => vlan.purpose);
    expect(inside('cam-1')).toEqual(['cameras']);
    expect(inside('sw-b')).toEqual(['management', 'cameras', 'staff', 'guest', 'voice']);
    expect(inside('hub')).toEqual(['staff']);
  });

  test('gets beyond by what the policy lets pass, and from a router to everything', () => {
    const plan = soundPolicy();
    const beyond = (name: string) =>
      intruderReach(plan, deviceNamed(plan, name).id).beyond.map(({ zone, what }) => `${zone.name}: ${what}`);
    expect(beyond('desk').filter((line) => line.endsWith('everything'))).toEqual(['Internet: everything']);
    expect(beyond('gw-1').every((line) => line.endsWith('everything'))).toBe(true);
  });

  test('is tried together with other faults, in the network as it is then', () => {
    const plan = soundGear();
    const { id } = deviceNamed(plan, 'cam-1');
    const inside = (...faults: Fault[]) =>
      whatIf(plan, [...faults, { kind: 'taken', device: id }], TODAY).intruders.map(({ device, reach }) => [
        device.name,
        reach.inside.map(({ vlan }) => vlan.purpose),
      ]);
    expect(inside()).toEqual([['cam-1', ['cameras']]]);
    expect(inside(typedFault(plan, 'plug', 'sw-a 3', 'sw-b 2'))).toEqual([['cam-1', ['staff']]]);
    expect(inside(typedFault(plan, 'cable', 'cam-1', ''))).toEqual([['cam-1', []]]);
    const alone = whatIf(plan, [{ kind: 'taken', device: id }], TODAY);
    expect([alone.cutOff, alone.rerouted, alone.answers]).toEqual([[], [], []]);
  });
});
