import fc from 'fast-check';
import {
  rangesMeet,
  type TrafficRange,
  ruleFor,
  rulesOf,
  onLine,
  serviceAt,
  passing,
  zoneOfVlan,
  zonesOf,
} from '../model/policy';
import { cardOf } from '../testing/internet';
import { buildPolicy, damagedPolicy, soundPolicy } from '../testing/policy';
import { put } from '../testing/gear';
import { differencesOf } from './differences';
import { pairOf, wholeMatrix } from './whole-matrix';
import { moreThan, runs } from '../testing/runs';

const sound = soundPolicy();
const TODAY = '2026-05-04';
const hosts = ['desk', 'till', 'cam-1', 'phone'];

describe('the whole matrix', () => {
  test('names for every packet between hosts the rule that decides it, and none where none does', () => {
    const counted = { decided: 0, left: 0 };
    fc.assert(
      fc.property(damagedPolicy, damagedPolicy, (first, more) => {
        // Twice, so that the second is made from what was remembered of the first.
        const once = buildPolicy(first, sound);
        for (const built of [once, buildPolicy(more, once)]) {
          // Which box keeps a rule is no matter here.
          const plan = rulesOf(built).reduce((now, rule) => put(now, 'rule', rule, { device: null }), built);
          const pairs = wholeMatrix(plan, TODAY);
          const addressOf = (name: string) =>
            [...plan.address.values()].find((item) => item.interface === cardOf(plan, name).id)!;
          for (const a of hosts)
            for (const b of hosts) {
              const [from, to] = [addressOf(a), addressOf(b)];
              const [one, other] = [from, to].map(({ subnet }) =>
                zoneOfVlan(plan, plan.subnet.get(subnet)!.vlan),
              );
              if (!one || !other) continue;
              const pair = pairs.find((item) => item.from === one && item.to === other)!;
              for (const wanted of [
                { protocol: 'tcp', port: 443 },
                { protocol: 'icmp', port: 8 },
              ] as const) {
                const at = (value: bigint) => [value, value] as const;
                const packet: TrafficRange = [
                  at(onLine(from.address)),
                  at(onLine(to.address)),
                  at(serviceAt(wanted.protocol, wanted.port)),
                ];
                const spoke = ruleFor(plan, 'any', from.address, to.address, wanted, TODAY)?.rule;
                const found = pair.rules.filter(({ boxes }) => boxes.some((box) => rangesMeet(box, packet)));
                expect(found.map(({ rule }) => rule.id)).toEqual(spoke ? [spoke.id] : []);
                counted[spoke ? 'decided' : 'left']++;
              }
            }
        }
      }),
      { numRuns: runs(150), seed: 4 },
    );
    expect(counted.decided).toBeGreaterThan(moreThan(200));
    expect(counted.left).toBeGreaterThan(moreThan(200));
  });

  test('is the same pair by pair, after an edit of a rule too', () => {
    const [rule] = rulesOf(sound);
    for (const plan of [
      sound,
      put(sound, 'rule', rule!, { action: 'deny' }),
      put(sound, 'rule', rule!, { enabled: false }),
    ]) {
      const whole = wholeMatrix(plan, TODAY);
      expect(whole).toHaveLength(zonesOf(plan).length ** 2);
      for (const pair of whole) {
        expect(pairOf(plan, pair.from, pair.to, TODAY)).toEqual(pair);
        expect(pair.passing).toEqual(passing(plan, pair.from, pair.to));
        expect(pair.differences).toEqual(differencesOf(plan, pair.from.id, pair.to.id));
      }
    }
  });
});
