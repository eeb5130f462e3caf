import fc from 'fast-check';
import type { IpAddress } from '../../address';
import { type Plan, boxOf } from '../../plan';
import { deviceNamed, put } from '../../testing/gear';
import { buildInternet, damagedInternet } from '../../testing/internet';
import { behindRouter, dualStack } from '../../testing/outside';
import { done } from '../../testing/plans';
import { buildPolicy, damagedPolicy, soundPolicy } from '../../testing/policy';
import { behindSwitch } from '../../testing/routed';
import { runs } from '../../testing/runs';
import { routersIn } from '../routing';
import { zoneOfSide } from './decide';
import { onLine, sideOfAddress, spansAt, zonesOf } from './index';

const sites: readonly (() => Plan)[] = [
  () => behindSwitch(dualStack(soundPolicy()), true),
  () => behindRouter(soundPolicy()),
  () => {
    // Another firm’s network, reached by a router in the segment of the staff.
    const plan = behindSwitch(soundPolicy(), true);
    const core = boxOf(plan, deviceNamed(plan, 'core').id)!;
    const filtered = put(plan, 'box', core, { filter: 'stateful' });
    return done(filtered, 'addRoute', { prefix: '172.29.0.0/16', via: '10.20.30.77' });
  },
];

/** Addresses at the edges of everything a plan speaks of, and some anywhere. */
const edges = (plan: Plan): IpAddress[] =>
  zonesOf(plan).flatMap((zone) =>
    [...routersIn(plan).values()].flatMap((router) =>
      spansAt(plan, router, zone).flatMap(([from, to]) =>
        [from - 1n, from, to, to + 1n].filter((at) => at >= 0n && at < 2n ** 32n).map(Number),
      ),
    ),
  );

test('an address is put in a zone exactly when it is among the addresses of that zone', () => {
  let [inside, outside, nowhere] = [0, 0, 0];
  fc.assert(
    fc.property(
      fc.constantFrom(...sites),
      damagedInternet,
      damagedPolicy,
      fc.array(fc.oneof(fc.nat(2 ** 32 - 1), fc.bigInt({ min: 0n, max: 2n ** 128n - 1n })), {
        maxLength: 20,
      }),
      (make, internet, policy, anywhere) => {
        const plan = buildPolicy(policy, buildInternet(internet, make()));
        for (const router of routersIn(plan).values())
          for (const address of [...edges(plan), ...anywhere]) {
            const side = sideOfAddress(plan, router, address);
            const at = onLine(address);
            const among = zonesOf(plan).filter((zone) =>
              spansAt(plan, router, zone).some(([from, to]) => from <= at && at <= to),
            );
            expect(among.map(({ name }) => name)).toEqual([zoneOfSide(plan, side)?.name ?? []].flat());
            if ('outside' in side) outside++;
            else if ('nowhere' in side) nowhere++;
            else inside++;
          }
      },
    ),
    { numRuns: runs(60), seed: 4 },
  );
  expect(Math.min(inside, outside, nowhere)).toBeGreaterThan(50);
});
