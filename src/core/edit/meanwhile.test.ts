import { addressesOf, subnetsOf, vlansOf } from '../plan';
import { done, emptySite, nextSeed } from '../testing/plans';
import { perform } from './operations';

/** A call tells what was in view when it was typed; what others did meanwhile decides what becomes of it. */

const withStaff = done(emptySite(), 'addSegment', { purpose: 'staff' });
const vlan = vlansOf(withStaff)[0]!;
const subnet = subnetsOf(withStaff, vlan.id)[0]!.id;
const plan = done(withStaff, 'addHost', { subnet, name: 'desk', address: '10.20.10.20' });
const desk = addressesOf(plan, subnet).find(({ gateway }) => !gateway)!.id;

/** Each with what is so now, what somebody saw, and what the call sets it to. */
const calls: readonly (readonly [string, (to: string) => object, now: string, seen: string])[] = [
  ['renameHost', (name) => ({ address: desk, name }), 'desk', 'table'],
  ['moveHost', (to) => ({ address: desk, to }), '10.20.10.20', '10.20.10.21'],
  ['setGateway', (address) => ({ subnet, address }), '10.20.10.1', '10.20.10.254'],
  ['setPrefix', (prefix) => ({ subnet, prefix }), '10.20.10.0/24', '10.20.12.0/24'],
];
const others: Readonly<Record<string, string>> = {
  renameHost: 'chair',
  moveHost: '10.20.10.22',
  setGateway: '10.20.10.2',
  setPrefix: '10.20.11.0/24',
};

test.each(calls)('%s is refused where the value is another by now', (operation, inputTo, now, seen) => {
  const call = { operation, input: { ...inputTo(others[operation]!), seen } };
  expect(() => perform(plan, call, nextSeed())).toThrow(
    new RegExp(`was ${seen} when you edited it and is ${now} now`),
  );
});

test.each(calls)(
  '%s changes nothing where another set the same meanwhile',
  (operation, inputTo, now, seen) => {
    const call = { operation, input: { ...inputTo(now), seen } };
    expect(perform(plan, call, nextSeed()).steps).toEqual([]);
  },
);

test.each(calls)('%s is done where all is as it was seen', (operation, inputTo, now) => {
  const call = { operation, input: { ...inputTo(others[operation]!), seen: now } };
  expect(perform(plan, call, nextSeed()).steps).not.toEqual([]);
});
