import { deviceNamed, portNamed } from '../testing/gear';
import { uplinkNamed } from '../testing/internet';
import { soundPolicy } from '../testing/policy';
import { faultNames, typedFault } from './typed-fault';

const plan = soundPolicy();
const cable = (name: string, number: number) => {
  const { id } = portNamed(plan, name, number);
  return [...plan.cable.values()].find(({ from, to }) => from === id || to === id)!.id;
};

test('faults are read as they are typed', () => {
  expect(typedFault(plan, 'cable', 'sw-a 9', '')).toEqual({ kind: 'cable', cable: cable('sw-a', 9) });
  expect(typedFault(plan, 'cable', 'sw-b 9 = sw-a 9', '')).toEqual({
    kind: 'cable',
    cable: cable('sw-a', 9),
  });
  expect(typedFault(plan, 'cable', 'cam-1', '')).toEqual({ kind: 'cable', cable: cable('sw-a', 3) });
  expect(typedFault(plan, 'box', ' SW-B ', '')).toEqual({
    kind: 'box',
    device: deviceNamed(plan, 'sw-b').id,
  });
  expect(typedFault(plan, 'taken', 'desk', '')).toEqual({
    kind: 'taken',
    device: deviceNamed(plan, 'desk').id,
  });
  expect(typedFault(plan, 'uplink', 'Fibre', '')).toEqual({
    kind: 'uplink',
    uplink: uplinkNamed(plan, 'fibre').id,
  });
  expect(typedFault(plan, 'plug', 'sw-b 1', 'sw-b 3')).toEqual({
    kind: 'plug',
    cable: cable('sw-b', 1),
    from: portNamed(plan, 'sw-b', 1).id,
    to: portNamed(plan, 'sw-b', 3).id,
  });
});

test.each([
  ['cable', 'sw-a 99', '', '“sw-a 99” is no port here'],
  ['cable', 'sw-b 4', '', 'No cable is in sw-b 4'],
  ['cable', 'sw-a 9 = sw-b 4', '', 'There is no cable sw-a 9 = sw-b 4'],
  ['box', 'desk', '', '“desk” is no box here'],
  ['taken', 'ghost', '', '“ghost” is no device here'],
  ['uplink', 'radio', '', '“radio” is no uplink here; there are '],
  ['plug', 'sw-b 1', 'nowhere', '“nowhere” is no port here'],
] as const)('%s %s is refused with what is wrong', (kind, text, to, why) =>
  expect(() => typedFault(plan, kind, text, to)).toThrow(why),
);

test('what can be typed can be read', () => {
  for (const kind of ['cable', 'box', 'uplink', 'taken'] as const)
    for (const name of faultNames(plan, kind)) expect(typedFault(plan, kind, name, '').kind).toBe(kind);
});
