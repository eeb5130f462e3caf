import { type Plan, boxOf, withRecord } from '../../../plan';
import type { PortGuards } from '../../../model/guards';
import { deviceNamed, portNamed, put } from '../../../testing/gear';
import { guarded, held, soundGuards, unbound, withReserve, withSix } from '../../../testing/guards';
import { done } from '../../../testing/plans';
import { FindingsEngine } from '../../engine';
import { guardChecks } from './';

const sound = soundGuards();
const TODAY = '2026-05-04';

const heldAt = (plan: Plan, name: string, number: number, fields: Partial<PortGuards>): Plan =>
  held(plan, portNamed(plan, name, number).id, fields);

const examples: readonly (readonly [string, string, () => Plan, RegExp])[] = [
  [
    'way-not-trusted',
    'stop',
    () => heldAt(sound, 'sw-b', 9, { trustsDhcp: false }),
    /^who is behind it gets no address\.$/,
  ],
  [
    'way-not-trusted',
    'fix',
    () => heldAt(sound, 'sw-b', 9, { trustsArp: false }),
    /^everybody who comes from there needs a binding here as well/,
  ],
  [
    'way-not-trusted',
    'fix',
    // A second way to the gateway, on which a tree stands in reserve.
    () =>
      heldAt(heldAt(withReserve(sound), 'sw-b', 5, { trustsDhcp: true, trustsArp: true }), 'sw-b', 9, {
        trustsDhcp: false,
      }),
    /^After a failure they come this way: /m,
  ],
  [
    'trust-needless',
    'fix',
    () => heldAt(sound, 'sw-a', 5, { trustsDhcp: true }),
    /whoever plugs a server of their own in there is believed/,
  ],
  [
    'fixed-unbound',
    'stop',
    () => unbound(sound),
    /sw-a has no binding for 10\.\S+; so with \d addresses in all\. A fixed address asks for no lease/,
  ],
  [
    'leases-unseen',
    'stop',
    () => guarded(sound, 'sw-a', 'staff', { snooping: false }),
    /^It checks Staff against bindings and watches no leases there: visitor would be cut off\.$/,
  ],
  [
    'leases-unseen-6',
    'stop',
    () => guarded(withSix(sound, 'staff', true), 'sw-a', 'staff', { sourceGuard6: true }),
    /^It checks IPv6 senders of Staff and watches no leases of DHCPv6 there: .*visitor.* would be cut off\.$/,
  ],
  [
    'own-addresses-cut',
    'stop',
    () => guarded(withSix(sound, 'staff', false), 'sw-a', 'staff', { sourceGuard6: true, dhcp6Guard: true }),
    /^In Staff devices make addresses from what the router announces, and source guard knows leases only: .*visitor/,
  ],
  [
    'option-82-dropped',
    'stop',
    () => guarded(sound, 'sw-b', 'staff', { option82: true }),
    /^sw-a drops requests that carry option 82 at sw-a 9, which is not trusted\. leased would get no address\.$/,
  ],
  [
    'mac-limit-low',
    'fix',
    () => heldAt(sound, 'sw-a', 4, { macLimit: 1 }),
    /^The last of them is not heard\.$/,
  ],
  [
    'mac-limit-low',
    'stop',
    () => heldAt(sound, 'sw-b', 2, { macLimit: 2, macAction: 'shut' }),
    /^With the last of them the port is switched off\.$/,
  ],
  [
    'guards-unable',
    'stop',
    () => put(sound, 'box', boxOf(sound, deviceNamed(sound, 'sw-a').id)!, { snooping: false }),
    /^Its model watches no leases/,
  ],
  [
    'leases-unwatched',
    'note',
    () => guarded(sound, 'sw-b', 'staff', { snooping: false, inspection: false }),
    /^It could watch leases and does not in Staff: a router plugged in there hands out its own addresses\.$/,
  ],
  [
    'dhcp-rate-low',
    'fix',
    () => heldAt(sound, 'sw-b', 2, { dhcpRate: 5 }),
    /^After a power cut 3 devices behind it ask at once, twice each; with 6 per second all are heard\.$/,
  ],
  [
    'binding-without-mac',
    'fix',
    () => sound,
    /are to be entered at boxes, and an entry needs the MAC address too/,
  ],
];

const found = (plan: Plan, check: string) =>
  new FindingsEngine(plan, TODAY).all().filter((finding) => finding.check === check);

test.each(examples)('%s as a %s', (check, severity, make, says) => {
  const matching = found(make(), check).filter(({ because }) => says.test(because));
  expect(
    found(make(), check)
      .map(({ because }) => because)
      .join('\n'),
  ).toMatch(says);
  expect(matching[0]!.severity).toBe(severity);
  expect(found(sound, check).some(({ key }) => key === matching[0]!.key)).toBe(
    check === 'binding-without-mac',
  );
});

test('every check has an example', () =>
  expect([...new Set(examples.map(([check]) => check))].sort()).toEqual(
    guardChecks.map(({ id }) => id).sort(),
  ));

test('where nothing is guarded, nothing is said of guards', () => {
  const bare = [...sound.vlanGuard.values()].reduce(
    (next, { id }) => withRecord(next, 'vlanGuard', id, null),
    unbound(sound),
  );
  const said = new FindingsEngine(bare, TODAY).all().filter(({ station }) => station === 'guards');
  expect(said).toEqual([]);
});

test('the remedy for a fixed address enters it at every box that would stop it', () => {
  const plan = unbound(sound);
  const cut = found(plan, 'fixed-unbound');
  expect(cut.map(({ what }) => what)).toEqual([
    expect.stringMatching(/^sw-a cuts off .*gw-1/),
    expect.stringMatching(/^sw-b cuts off .*desk/),
  ]);
  const mended = cut.reduce(
    (next, { remedies: [remedy] }) =>
      found(next, 'fixed-unbound').length ? done(next, remedy!.operation, remedy!.input) : next,
    plan,
  );
  expect(found(mended, 'fixed-unbound')).toEqual([]);
});
