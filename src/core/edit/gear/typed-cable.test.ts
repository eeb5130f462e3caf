import { emptySite, done } from '../../testing/plans';
import { perform } from '../operations';
import { typedCables } from './typed-cable';

/** A switch of 24 ports, four telephones and a camera. */
function site() {
  let plan = done(emptySite(), 'addSegment', { purpose: 'staff' });
  const subnet = [...plan.subnet.values()][0]!.id;
  plan = done(plan, 'addDevice', { model: { shelf: 'switch-24p' }, name: 'sw-a', location: '' });
  for (const name of ['phone-01', 'phone-02', 'phone-03', 'phone-04'])
    plan = done(plan, 'addHost', { subnet, kind: 'phone', name });
  return plan;
}

describe('several cables in one line', () => {
  const plan = site();
  const names = (text: string) =>
    typedCables(plan, text).map(
      ({ from, to }) =>
        `${plan.device.get(from.device)!.name} ${from.number} = ${plan.device.get(to.device)!.name}`,
    );

  it('joins ports and counted devices one to one', () => {
    expect(names('sw-a 1-3 = phone-01..03')).toEqual([
      'sw-a 1 = phone-01',
      'sw-a 2 = phone-02',
      'sw-a 3 = phone-03',
    ]);
    expect(names('sw-a 2,5-6 = phone-01..03')[2]).toBe('sw-a 6 = phone-03');
    expect(names('sw-a 9 = phone-04')).toEqual(['sw-a 9 = phone-04']);
  });

  it.each([
    [
      'sw-a 1-3 = phone-01..02',
      '“sw-a 1-3” are 3 ends and “phone-01..02” are 2; name as many on both sides.',
    ],
    ['sw-a 3-1 = phone-01..03', '“sw-a 3-1” runs backwards; write 1 first.'],
    ['sw-a 1-3 = phone-03..05', 'There is no device “phone-05”'],
    ['sw-a 1-999 = phone-01..02', 'are more than 200 ends'],
  ])('refuses %s', (text, why) => expect(() => typedCables(plan, text)).toThrow(why));

  it('gives a telephone the class such devices usually ask for', () => {
    const [cable] = typedCables(plan, 'sw-a 1 = phone-01');
    const change = perform(plan, { operation: 'connect', input: cable }, 'p1');
    const port = change.steps.find(({ table }) => table === 'port')!.after as { poeClass: number | null };
    expect(port.poeClass).toBe(2);
  });
});
