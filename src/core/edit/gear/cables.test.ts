import { type Plan, devicesNamed } from '../../plan';
import { pluggedInto } from '../../model/switching';
import { linksOf, portsOf } from '../../model/wiring';
import { done } from '../../testing/plans';
import { named, port, vlan, add, cable, assign, cupboard } from '../../testing/cupboard';

describe('cables', () => {
  const plan = cupboard();
  test.each([
    ['sw-a 2 = sw-a 2', 'cannot be joined to itself'],
    ['sw-a 2', 'has no two ends'],
    ['sw-a 99 = sw-b 1', 'There is no port 99 on sw-a; it has ports 1–28'],
    ['sw-x 1 = sw-b 1', 'There is no device “sw-x”'],
    ['sw-a 1 = sw-b 1', 'sw-a 1 holds a cable to gw-1 2 already; take that out first'],
    ['sw-a 2 rear = sw-b 1', 'sw-a 2 has no rear'],
    ['sw-a = sw-b 1', 'write which, like sw-a 1'],
  ])('%s is refused: %s', (text, why) => expect(() => cable(plan, text)).toThrow(why));
  test('through an outlet and a panel the ends meet', () => {
    let next = add(add(plan, 'panel-24', 'panel'), 'outlet-2', 'c-11');
    next = done(next, 'addHost', { subnet: [...next.subnet.values()][1]!.id, kind: 'camera', name: 'cam' });
    for (const text of ['sw-a 5 = panel 7', 'panel 7 rear = c-11 1 rear', 'c-11 1 = cam'])
      next = cable(next, text);
    const [link] = linksOf(next).get(port(next, 'sw-a', 5).id)!;
    expect(next.port.get(link!.to)!.device).toBe(named(next, 'cam').id);
    expect(link!.cables).toHaveLength(3);
    expect(pluggedInto(next, named(next, 'cam').id)).toBe(port(next, 'sw-a', 5));
  });
  test('between two fibre sockets fibre is laid, of the kind the site has most of; copper between any others', () => {
    const light = (of: Plan, name: string, at: number) =>
      portsOf(of, named(of, name).id).filter(({ media }) => media === 'fibre')[at]!;
    const laid = (of: Plan, text: string) => [...cable(of, text).cable.values()].at(-1)!.media;
    const both = (at: number) =>
      `sw-a ${light(plan, 'sw-a', at).number} = sw-b ${light(plan, 'sw-b', at).number}`;
    expect(laid(plan, both(0))).toBe('multi-mode');
    expect(laid(plan, 'sw-a 5 = sw-b 6')).toBe('copper');
    expect(laid(plan, `sw-a ${light(plan, 'sw-a', 0).number} = sw-b 6`)).toBe('copper');
    const end = (name: string) => ({ device: named(plan, name).id, number: light(plan, name, 1).number });
    const far = done(plan, 'connect', { from: end('sw-a'), to: end('sw-b'), media: 'single-mode' });
    expect(laid(far, both(0))).toBe('single-mode');
  });
  test('a plug moved takes its plan with it when asked', () => {
    let next = assign(plan, [port(plan, 'sw-a', 5)], 'access', { vlan: vlan(plan, 'cameras').id });
    next = done(next, 'addHost', { subnet: [...next.subnet.values()][1]!.id, kind: 'camera', name: 'cam' });
    next = cable(next, 'sw-a 5 = cam');
    const laid = [...next.cable.values()].find((item) => item.from === port(next, 'sw-a', 5).id)!;
    next = done(next, 'movePlug', {
      cable: laid.id,
      end: 'from',
      port: port(next, 'sw-b', 6).id,
      withPlan: true,
    });
    expect(port(next, 'sw-b', 6).untagged).toBe(vlan(plan, 'cameras').id);
    expect(port(next, 'sw-a', 5).role).toBe('parked');
    expect(pluggedInto(next, named(next, 'cam').id)).toBe(port(next, 'sw-b', 6));
  });
  test('removing a device takes its ports and cables; a gateway stays', () => {
    const next = done(plan, 'removeDevice', { device: named(plan, 'sw-b').id });
    expect(devicesNamed(next, 'sw-b')).toEqual([]);
    expect(next.cable.size).toBe(1);
    expect(() => done(plan, 'removeDevice', { device: named(plan, 'gw-1').id })).toThrow(
      'is the gateway of a segment',
    );
  });
});
