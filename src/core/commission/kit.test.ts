import fc from 'fast-check';
import { soundPolicy } from '../testing/policy';
import { soundTrees } from '../testing/trees';
import { commissionSite, drawnCommission } from '../testing/commission';
import { emptySite } from '../testing/plans';
import { put } from '../testing/gear';
import { runs } from '../testing/runs';
import { kitOf } from './kit';

test('every cable of the plan is in the bag, by kind and length', () => {
  fc.assert(
    fc.property(
      drawnCommission,
      fc.array(fc.constantFrom(null, 1, 3, 20), { minLength: 1 }),
      (drawn, lengths) => {
        const { plan: bare } = commissionSite(drawn);
        const plan = [...bare.cable.values()].reduce(
          (now, cable, i) => put(now, 'cable', cable, { length: lengths[i % lengths.length]! }),
          bare,
        );
        const leads = kitOf(plan).filter(({ what }) => what.includes(' cable, ') && !what.endsWith('laptop'));
        expect(leads.reduce((sum, { count }) => sum + count!, 0)).toBe(plan.cable.size);
        for (const [length, said] of [
          [3, 'copper cable, 3 m'],
          [null, 'copper cable, length not measured'],
        ] as const) {
          const planned = [...plan.cable.values()].filter((cable) => cable.length === length).length;
          expect(leads.find(({ what }) => what === said)?.count ?? 0).toBe(planned);
        }
      },
    ),
    { numRuns: runs(50), seed: 6 },
  );
});

test('nothing is brought to a site without gear', () => {
  expect(kitOf(emptySite())).toEqual([]);
});

test('an optic is brought once more than planned; firmware by model; no login is written down, only who keeps it', () => {
  const plain = soundTrees();
  const ports = [...plain.port.values()].filter(({ media }) => media !== 'inner').slice(0, 2);
  const box = [...plain.box.values()][0]!;
  const plan = put(
    ports.reduce((now, port) => put(now, 'port', port, { optic: '10G LR' }), plain),
    'box',
    box,
    { loginKept: 'safe of the owner', firmware: '7.1' },
  );
  const kit = kitOf(plan);
  expect(kit).toContainEqual({
    part: 'cables',
    count: 3,
    what: 'optic 10G LR',
    why: '2 planned and one to spare',
  });
  expect(kit.map(({ what }) => what)).toContain(`firmware 7.1 for ${box.model}`);
  expect(kit).toContainEqual({
    part: 'ask',
    count: null,
    what: 'logins: safe of the owner',
    why: plan.device.get(box.device)!.name,
  });
});

test('a provider’s login and VLAN are asked for', () => {
  const plain = soundPolicy();
  const uplink = [...plain.uplink.values()][0]!;
  const kit = kitOf(put(plain, 'uplink', uplink, { addressing: 'pppoe', providerVlan: 7 }));
  expect(kit.map(({ what }) => what)).toEqual(
    expect.arrayContaining([`provider login for ${uplink.name}`, `VLAN 7 of the provider at ${uplink.name}`]),
  );
});
