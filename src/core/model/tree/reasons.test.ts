import { fabric } from '../switching';
import { type Made, portAt, switches } from '../../testing/switches';
import type { Plan } from '../../plan';
import { treesOf } from './forwarding';
import { Reasons } from './reasons';

const reasonsOf = (plan: Plan) => {
  const [grown] = treesOf(plan).grown;
  const reasons = new Reasons(plan, fabric(plan), grown!);
  return {
    reasons,
    port: (box: string, number: number) =>
      reasons.ofPort(grown!.ports.findIndex(({ ports }) => ports.includes(portAt(box, number)))),
  };
};
const triangle = [
  ['a', 1, 'b', 1],
  ['b', 2, 'c', 1],
  ['c', 2, 'a', 2],
] as const;

describe('every role is explained by the comparison that decided it', () => {
  test('the root, the way to it, who speaks, and who is blocked', () => {
    const { reasons, port } = reasonsOf(
      switches({ a: { mac: 0x31 }, b: { mac: 0x4c }, c: { mac: 0x5d } }, triangle),
    );
    expect(reasons.ofRoot(0)).toBe(
      'priority 32768 equal, …53:31 lower than …53:4C of b, and lower than all others',
    );
    expect(port('b', 1)).toBe('the way to a, and the only one');
    expect(port('c', 2)).toBe('the way to a: root path cost 20000 lower than 40000 of the way by c 1');
    expect(port('b', 2)).toBe(
      'root path cost equal (20000), priorities equal, …53:4C lower than …53:5D of c, so this side speaks',
    );
    expect(port('c', 1)).toBe(
      'b 2 speaks here: root path cost equal (20000), priorities equal, …53:4C lower than …53:5D of this side',
    );
    expect(port('a', 1)).toBe('root path cost 0 lower than 20000 of b, so this side speaks');
    expect(reasons.hops(2)).toBe(1);
  });

  test('a priority, a port identifier, a backup, and a MAC that is not known', () => {
    const low = reasonsOf(switches({ a: {}, b: { bridge: { priority: 4096 } }, c: {} }, triangle));
    expect(low.reasons.ofRoot(1)).toBe('priority 4096 lower than 32768 of a, and lower than all others');
    const pair = reasonsOf(
      switches({ a: {}, b: {} }, [
        ['a', 1, 'b', 5],
        ['a', 2, 'b', 4],
      ]),
    );
    expect(pair.port('b', 5)).toBe('the way to a: cost and bridge equal, port id 128.1 lower than 128.2');
    const plain: Made = { box: { vlanAware: false, spanningTree: 'none', passes: ['bpdu'] } };
    const shared = reasonsOf(
      switches({ a: {}, p: plain }, [
        ['a', 1, 'p', 1],
        ['a', 2, 'p', 2],
      ]),
    );
    expect(shared.port('a', 2)).toBe(
      'the box hears itself: a 1 speaks on the same LAN with the lower port id',
    );
    const unknown = reasonsOf(switches({ a: { mac: null }, b: {} }, [['a', 1, 'b', 1]]));
    expect(unknown.reasons.ofRoot(1)).toBe(
      'priority 32768 equal to that of a, and a MAC address is not known: it may be either',
    );
  });
});
