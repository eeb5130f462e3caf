import { subnetOf } from '../../plan';
import { vlanFor } from '../../testing/gear';
import { cardOf, soundInternet } from '../../testing/internet';
import { dualStack } from '../../testing/outside';
import { done } from '../../testing/plans';

/** What is set on a device belongs to one family of addresses; where it has none of that, nobody would ever see it. */

const dual = dualStack(soundInternet());
const set = (device: string, values: object) =>
  done(dual, 'edit', { table: 'interface', id: cardOf(dual, device).id, set: values });

test('a gateway or mask of a family that the card does not speak is refused', () => {
  expect(() => set('till', { ownGateway: '2001:db8::9' })).toThrow(
    '2001:db8::9 is an address of IPv6, and the card has no IPv6 address that would use it.',
  );
  expect(() => set('till', { ownLength: 64 })).toThrow('/64 is a mask of IPv6, and the card has no IPv6');
  const { ownGateway } = set('desk', { ownGateway: '2001:db8::9' }).interface.get(cardOf(dual, 'desk').id)!;
  expect(typeof ownGateway).toBe('bigint');
});

test('nor can a host be added with one', () => {
  const subnet = subnetOf(dual, vlanFor(dual, 'staff').id, 4)!.id;
  expect(() => done(dual, 'addHost', { subnet, name: 'pc', ownGateway: '2001:db8::9' })).toThrow(
    /no IPv6 address that would use it/,
  );
  expect(() =>
    done(dual, 'addHost', { subnet, name: 'pc', ownLength: 16, ownGateway: '0.0.0.0' }),
  ).not.toThrow();
});
