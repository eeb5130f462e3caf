import { withRecord } from '../../plan';
import { portAt, switches } from '../../testing/switches';
import { plugInSwitch } from './new-switch';
import { factoryStpPort } from './settings';

const triangle = [
  ['a', 1, 'b', 1],
  ['b', 2, 'c', 1],
  ['c', 2, 'a', 2],
] as const;
const port = portAt('b', 5);

describe('a switch with factory settings, plugged in', () => {
  const accidental = switches({ a: {}, b: {}, c: {} }, triangle);
  const chosen = switches({ a: { bridge: { priority: 4096 } }, b: {}, c: {} }, triangle);
  const guarded = (guard: 'root' | 'bpdu') =>
    withRecord(accidental, 'stpPort', 'g', { ...factoryStpPort, id: 'g', port, instance: 0, guard });

  test('takes the root where nobody chose one and its MAC address is the lowest', () => {
    expect(plugInSwitch(accidental, port, 'lowest')).toMatchObject({
      takesRoot: true,
      blocked: [portAt('c', 2)],
    });
    expect(plugInSwitch(accidental, port, 'lowest').opened).toEqual([portAt('c', 1)]);
    expect(plugInSwitch(accidental, port, 'highest')).toMatchObject({
      takesRoot: false,
      blocked: [],
      opened: [],
    });
  });

  test('changes nothing where the root was chosen', () => {
    for (const mac of ['lowest', 'highest'] as const)
      expect(plugInSwitch(chosen, port, mac)).toEqual({
        heard: true,
        takesRoot: false,
        blocked: [],
        opened: [],
        shut: false,
        heldOff: false,
      });
  });

  test('is held off by a root guard, and shut out by a BPDU guard', () => {
    expect(plugInSwitch(guarded('root'), port, 'lowest')).toMatchObject({ heldOff: true, opened: [] });
    expect(plugInSwitch(guarded('bpdu'), port, 'highest')).toMatchObject({ shut: true, opened: [] });
    expect(accidental.device.size).toBe(3);
    const off = withRecord(chosen, 'port', port, { ...chosen.port.get(port)!, role: 'parked' });
    expect(plugInSwitch(off, port, 'lowest')).toMatchObject({ heard: false, takesRoot: false });
  });
});
