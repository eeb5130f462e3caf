import { type Plan, type Zone, boxOf } from '../../../plan';
import { rulesOf } from '../../../model/policy';
import { deviceNamed, put, vlanFor } from '../../../testing/gear';
import { policyDamages, soundPolicy, zoneNamed } from '../../../testing/policy';
import { done } from '../../../testing/plans';
import { FindingsEngine } from '../../engine';
import { policyChecks } from './';

const TODAY = '2026-05-04';
const sound = soundPolicy();
const zone = (name: string, fields: Partial<Zone>, plan = sound): Plan =>
  put(plan, 'zone', zoneNamed(plan, name), fields);
const decide = (from: string, to: string, decision: string, services: string[] = []) =>
  done(sound, 'decidePairs', {
    pairs: [{ from: zoneNamed(sound, from).id, to: zoneNamed(sound, to).id }],
    decision,
    services,
  });
const filter = (kind: 'none' | 'stateless', plan = sound) =>
  put(plan, 'box', boxOf(plan, deviceNamed(plan, 'gw-1').id)!, { filter: kind });
const rule = (fields: object, plan = sound) => done(plan, 'addRule', fields);
const guests = { zone: zoneNamed(sound, 'Guests').id };
const staff = { zone: zoneNamed(sound, 'Staff').id };
const servers = { vlan: vlanFor(sound, 'voice').id };

const examples: readonly (readonly [string, string, () => Plan, RegExp])[] = [
  ['zone-missing', 'fix', () => zone('Staff', { vlans: [] }), /^Nothing says whom it may talk to\.$/],
  [
    'zone-twice',
    'stop',
    () =>
      zone('Guests', {
        vlans: [...zoneNamed(sound, 'Guests').vlans, ...zoneNamed(sound, 'Staff').vlans].sort(),
      }),
    /^Staff and Guests may be decided differently/,
  ],
  ['zone-manages', 'stop', () => zone('Guests', { manages: true }), /can try the gateway’s login/],
  [
    'guests-together',
    'note',
    () => zone('Guests', { inside: 'allow' }),
    /where the boxes can keep them apart/,
  ],
  [
    'cell-open',
    'stop',
    () => decide('Guests', 'Staff', 'allow'),
    /^Everything passes from Guests to Staff\.$/,
  ],
  [
    'cell-service-gone',
    'fix',
    () => policyDamages.goneService!(sound, 0, 1),
    /^1 of its 2 services is nowhere defined\.$/,
  ],
  [
    'policy-unenforced',
    'stop',
    () => filter('none'),
    /^It routes between zones and has no filter, so nobody keeps .* and \d+ more pairs/,
  ],
  ['policy-stateless', 'fix', () => filter('stateless'), /must be allowed back, or no answer arrives/],
  [
    'rule-order',
    'fix',
    () =>
      rule(
        { action: 'deny', from: [guests], to: [servers], services: ['stdhttps'] },
        rule({ action: 'allow', from: [guests], to: [servers] }),
      ),
    /^deny Guests to .*: HTTPS\. Rule 2 above it decides otherwise, and nothing is left for it\.$/,
  ],
  [
    'rule-expired',
    'fix',
    () => put(sound, 'rule', rulesOf(sound)[0]!, { until: '2026-05-03' }),
    /It held until 2026-05-03; on the boxes it may still stand\.$/,
  ],
  ['rule-any', 'stop', () => rule({ action: 'allow' }), /no zone counts any more/],
  [
    'intent-excess',
    'stop',
    () => policyDamages.wrongAccess!(sound, 0, 0),
    /is plugged into sw-a \d: that is VLAN \d+ .*\. Not allowed is /,
  ],
  [
    'intent-missing',
    'fix',
    () => policyDamages.ownSettings!(sound, 0, 0),
    /^desk: its gateway 10\.99\.0\.1 is not in the network .*\. Allowed is Staff to Devices, Staff to Internet/,
  ],
  [
    'dns-not-allowed',
    'fix',
    () => decide('Guests', 'Gateway', 'services', ['stdping']),
    /is in Gateway, and nothing lets DNS through from Guests/,
  ],
  [
    'control-cell-open',
    'stop',
    () => policyDamages.machines!(sound, 0, 1),
    /^Machines answer whoever asks\. From Staff/,
  ],
  [
    'internet-against-wish',
    'fix',
    () => decide('Devices', 'Internet', 'allow'),
    /^Everything passes from Devices to Internet; of Cameras it is recorded/,
  ],
  [
    'gateway-from-outside',
    'stop',
    () => policyDamages.login!(sound, 0, 0),
    /^From Internet tcp 22 of the gateway itself is open/,
  ],
  ['guests-inside', 'note', () => policyDamages.visitors!(sound, 0, 0), /^From Guests printing passes/],
  [
    'rule-box',
    'fix',
    () => policyDamages.ruleBox!(sound, 0, 0),
    /till to Devices: camera pictures\. sw-a has no filter\.$/,
  ],
  ['rule-wide', 'note', () => policyDamages.wide!(sound, 1, 0), /listens on 1 only/],
];

const found = (plan: Plan, check: string) =>
  new FindingsEngine(plan, TODAY).all().filter((finding) => finding.check === check);

describe('each check of who may talk by an example', () => {
  test.each(examples)('%s is a %s', (check, severity, make, says) => {
    const [finding] = found(make(), check);
    expect(finding?.because).toMatch(says);
    expect(finding!.severity).toBe(severity);
    expect(finding!.key).toBe(`${check}:${finding!.where[0]!.id}`);
  });
  test('every check has one', () =>
    expect(examples.map(([check]) => check).sort()).toEqual(policyChecks.map((check) => check.id).sort()));
  test('a site as it should be has none of them, nor one without zones', () => {
    expect(new FindingsEngine(sound, TODAY).all()).toEqual([]);
    const none = [...sound.zone.values()].reduce(
      (plan, { id }) => done(plan, 'removeZone', { zone: id }),
      sound,
    );
    expect(new FindingsEngine(none, TODAY).all().filter(({ station }) => station === 'policy')).toEqual([]);
  });
  test('an exception above a wider rule of the other action is no fault', () => {
    const plan = rule(
      { action: 'deny', from: [staff], to: [servers] },
      rule({ action: 'allow', from: [staff], to: [servers], services: ['stdsip'] }),
    );
    expect(found(plan, 'rule-order')).toEqual([]);
  });
  test('what the rules say the same way is redundant, what crosses is named', () => {
    const twice = rule(
      { action: 'allow', from: [staff], to: [servers] },
      rule({ action: 'allow', from: [staff], to: [servers] }),
    );
    expect(found(twice, 'rule-order').map(({ what }) => what)).toEqual([
      'Rule 2 changes nothing',
      'Rule 3 changes nothing',
    ]);
    const crossing = rule({ action: 'allow', to: [servers] }, rule({ action: 'deny', from: [staff] }));
    expect(found(crossing, 'rule-order').map(({ what }) => what)).toEqual(['Rule 3 crosses another']);
  });
});
