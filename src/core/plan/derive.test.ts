import { afresh, emptySite } from '../testing/plans';
import { derive, deriveBy, despite } from './derive';
import { memo } from './memo';
import { type Plan, planOf, withRecord } from './plan';
import type { Device } from './records';

const base = planOf({ site: [...emptySite().site.values()] });
const device = (id: string, name: string, kind: Device['kind'] = 'computer'): Device => ({
  id,
  name,
  kind,
  firewall: 'unknown',
});
const withDevice = (plan: Plan, item: Device): Plan => withRecord(plan, 'device', item.id, item);
const three = [device('a', 'one'), device('b', 'two'), device('c', 'three', 'printer')].reduce(
  withDevice,
  base,
);

/** A derivation that counts how often it was made. */
function counted<V>(make: (plan: Plan) => V) {
  let made = 0;
  const value = derive((plan) => {
    made++;
    return make(plan);
  });
  return { value, made: () => made };
}

describe('a derived value', () => {
  test('is made once for a plan, and again only when something it read has changed', () => {
    const { value, made } = counted((plan) => plan.device.get('a')!.name);
    expect([value(three), value(three), made()]).toEqual(['one', 'one', 1]);
    const other = withDevice(three, device('b', 'another'));
    expect([value(other), made()]).toEqual(['one', 1]);
    const renamed = withDevice(other, device('a', 'new'));
    expect([value(renamed), made()]).toEqual(['new', 2]);
    // Going back finds what was known.
    expect([value(three), made()]).toEqual(['one', 2]);
  });

  test('reads what is not there too', () => {
    const { value, made } = counted((plan) => plan.device.get('later')?.name ?? null);
    expect(value(three)).toBeNull();
    expect([value(withDevice(three, device('later', 'here'))), made()]).toEqual(['here', 2]);
  });

  test('reads by index: who has a name, and who comes to have it', () => {
    const { value, made } = counted((plan) => plan.device.by('name', 'two').map(({ id }) => id));
    expect(value(three)).toEqual(['b']);
    const unlike = withDevice(three, device('c', 'three again', 'printer'));
    expect([value(unlike), made()]).toEqual([['b'], 1]);
    const twice = withDevice(unlike, device('a', 'TWO'));
    expect([value(twice), made()]).toEqual([['a', 'b'], 2]);
  });

  test('that comes out equal wakes nobody', () => {
    const printers = counted(
      (plan) => [...plan.device.values()].filter(({ kind }) => kind === 'printer').length,
    );
    const sentence = counted((plan) => `${printers.value(plan)} printers`);
    const before = sentence.value(three);
    const more = withDevice(three, device('d', 'four'));
    expect([sentence.value(more), printers.made(), sentence.made()]).toEqual([before, 2, 1]);
    const printer = withDevice(more, device('e', 'five', 'printer'));
    expect([sentence.value(printer), sentence.made()]).toEqual(['2 printers', 2]);
  });

  test('keeps its identity while it is equal, whatever plan asks', () => {
    const names = derive((plan) => [...plan.device.values()].map(({ name }) => name.length));
    const first = names(three);
    expect(names(withDevice(three, device('a', 'eno')))).toBe(first);
    expect(names(afresh(three))).not.toBe(first);
    expect(names(afresh(three))).toEqual(first);
  });

  test('remembers through plans that nobody asked about', () => {
    const { value, made } = counted((plan) => plan.device.get('c')!.name);
    value(three);
    let plan = three;
    for (let i = 0; i < 40; i++) plan = withDevice(plan, device(`x${i}`, `name ${i}`));
    expect([value(plan), made()]).toEqual(['three', 1]);
  });

  test('knows two plans that went different ways from one', () => {
    const { value } = counted((plan) => [...plan.device.values()].map(({ name }) => name).sort());
    value(three);
    const [left, right] = [withDevice(three, device('a', 'left')), withDevice(three, device('a', 'right'))];
    for (let i = 0; i < 3; i++) {
      expect(value(left)).toContain('left');
      expect(value(right)).toContain('right');
      expect(value(three)).toContain('one');
    }
  });

  test('by key is one for each, and gone when what it was asked of is gone', () => {
    const name = deriveBy((plan, id: string) => plan.device.get(id)!.name);
    const listed = derive((plan) => [...plan.device.values()].map(({ id }) => name(plan, id)).sort());
    expect(listed(three)).toEqual(['one', 'three', 'two']);
    expect(listed(withRecord(three, 'device', 'b', null))).toEqual(['one', 'three']);
    expect(() => name(withRecord(three, 'device', 'b', null), 'b')).toThrow();
  });

  test('is given the value before', () => {
    const given: (number | undefined)[] = [];
    const size = derive((plan, before: number | undefined) => {
      given.push(before);
      return plan.device.size;
    });
    size(three);
    size(withDevice(three, device('d', 'four')));
    expect(given).toEqual([undefined, 3]);
  });

  test('is left as it is where it says so of a change of a part, over several plans', () => {
    const lengths = derive((plan) => [...plan.device.values()].map(({ name }) => name.length));
    let made = 0;
    const longest = deriveBy(
      (plan, least: number) => {
        made++;
        return Math.max(least, ...lengths(plan));
      },
      undefined,
      despite(lengths, (value, _was, is: readonly number[]) => value === Math.max(...is)),
    );
    expect(longest(three, 1)).toBe(5);
    const shorter = withDevice(three, device('a', 'x'));
    expect([longest(shorter, 1), made]).toEqual([5, 1]);
    const longer = withDevice(shorter, device('a', 'much longer'));
    expect([longest(longer, 1), made]).toEqual([11, 2]);
    expect([longest(withDevice(longer, device('b', 'y')), 1), made]).toEqual([11, 2]);
    expect([longest(withDevice(shorter, device('b', 'also longer')), 1), made]).toEqual([11, 3]);
    expect(longest(withRecord(longer, 'device', 'a', null), 1)).toBe(5);
  });

  test('of a plan that is only tried out depends on all it was read of there', () => {
    const size = derive((plan) => plan.device.size);
    const tried = derive((plan) => size(withDevice(plan, device('trial', 'trial'))));
    expect(tried(three)).toBe(4);
    expect(tried(withDevice(three, device('d', 'four')))).toBe(5);
  });

  test('that reads very many records is made again when any of them changes', () => {
    let plan = three;
    for (let i = 0; i < 2500; i++) plan = withDevice(plan, device(`m${i}`, `many-${i}`));
    const { value, made } = counted((now) => {
      let length = 0;
      for (let i = 0; i < 2500; i++) length += now.device.get(`m${i}`)!.name.length;
      return length;
    });
    const before = value(plan);
    const longer = withDevice(plan, device('m7', 'a name that is longer'));
    expect(value(longer)).toBe(before + 'a name that is longer'.length - 'many-7'.length);
    expect([value(withDevice(longer, device('m2400', 'x'))) < value(longer), made()]).toEqual([true, 3]);
  });
});

test('a memo reads nothing but its key', () => {
  const cheat = memo((item: Device) => `${item.name} of ${three.device.size}`);
  expect(() => cheat(three.device.get('a')!)).toThrow('a memo reads nothing but its key');
  const names = memo((devices: Plan['device']) => devices.size);
  expect(names(three.device)).toBe(names(three.device));
});
