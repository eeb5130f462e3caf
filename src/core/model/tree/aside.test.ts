import { type Plan, withRecord } from '../../plan';
import { type MadeLink, portAt, switches } from '../../testing/switches';
import { fabric } from '../switching';
import { flood } from '../wiring';
import { treesOf } from './forwarding';

/** Two links from `a` to `b` and one to `c`, in one bundle of `a`; `b` and `c` bundle theirs as said. */
function ofTwo(
  lacp: { readonly a: boolean; readonly b: boolean; readonly c: boolean },
  joined: boolean,
): Plan {
  const links: MadeLink[] = [
    ['a', 1, 'c', 1],
    ['a', 2, 'b', 1],
    ['a', 3, 'b', 2],
    ...(joined ? [['b', 5, 'c', 5] as const] : []),
  ];
  const members = { a: [1, 2, 3], b: [1, 2], c: [1] };
  return Object.entries(members).reduce(
    (plan, [device, numbers]) =>
      numbers.reduce(
        (next, number) => {
          const id = portAt(device, number);
          return withRecord(next, 'port', id, { ...next.port.get(id)!, lag: `g${device}` });
        },
        withRecord(plan, 'lag', `g${device}`, {
          id: `g${device}`,
          device,
          name: 'lag 1',
          lacp: lacp[device as 'a'],
        }),
      ),
    switches({ a: {}, b: {}, c: {} }, links),
  );
}
const off = (plan: Plan, id: string): Plan =>
  withRecord(plan, 'port', id, { ...plan.port.get(id)!, enabled: false });

/** The boxes that a frame from inside a box gets to. */
const heardFrom = (plan: Plan, box: string): string[] => {
  const { came } = flood(fabric(plan), { port: portAt(box, 0), tag: 10 });
  return [
    ...new Set([...came.keys()].map((key) => fabric(plan).bridges[Math.floor(key / 4096)]!.device)),
  ].sort();
};

describe('an LACP bundle to two boxes', () => {
  const all = { a: true, b: true, c: true };

  test('stands with the one that more links lead to; the other link passes nothing', () => {
    const plan = ofTwo(all, false);
    expect([...treesOf(plan).aside]).toEqual([portAt('a', 1)]);
    expect(heardFrom(plan, 'a')).toEqual(['a', 'b']);
    expect(heardFrom(plan, 'c')).toEqual(['c']);
  });

  test('is reached by another way, which no tree then blocks', () => {
    expect(heardFrom(ofTwo(all, true), 'a')).toEqual(['a', 'b', 'c']);
  });

  test('stands with the other one once the first is gone', () => {
    const plan = off(off(ofTwo(all, false), portAt('a', 2)), portAt('b', 2));
    expect([...treesOf(plan).aside]).toEqual([]);
    expect(heardFrom(plan, 'a')).toEqual(['a', 'c']);
  });

  test('lets nothing pass to a bundle that says no LACP', () => {
    expect(heardFrom(ofTwo({ ...all, c: false }, false), 'a')).toEqual(['a', 'b']);
    expect(heardFrom(ofTwo({ ...all, b: false }, false), 'b')).toEqual(['b']);
    expect(heardFrom(ofTwo({ ...all, a: false }, false), 'a')).toEqual(['a']);
  });

  test('puts no port aside whose other end is in no bundle', () => {
    const alone = ['a', 'b', 'c'].map((name) => ofTwo({ ...all, [name]: false }, false));
    const bare = withRecord(alone[2]!, 'port', portAt('c', 1), {
      ...alone[2]!.port.get(portAt('c', 1))!,
      lag: null,
    });
    expect(heardFrom(bare, 'a')).toEqual(['a', 'b', 'c']);
  });
});
