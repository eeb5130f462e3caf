import fc from 'fast-check';
import { type IpAddress, addOffset, parseAddress, formatPrefix, networkOf } from '../core/address';
import { nftRuleset } from '../core/formats';
import { type Address, type Plan, addressesOn, boxOf, subnetOf, vlansOf, withRecord } from '../core/plan';
import { filterOf } from '../core/model/policy';
import { farAddress } from '../core/rehearse';
import { deviceNamed, put, vlanFor } from '../core/testing/gear';
import { cardOf, uplinkNamed } from '../core/testing/internet';
import { done } from '../core/testing/plans';
import { behindSwitch, besideGateway } from '../core/testing/routed';
import { buildPolicy, damagedPolicy, soundPolicy, zoneNamed } from '../core/testing/policy';
import { Namespaces, namespacesMissing } from './namespaces';
import { compare } from './oracle';

const TODAY = '2026-05-04';
const missing = namespacesMissing();
if (missing !== null)
  console.log(`Rulesets are not tried on the kernel: no network namespaces can be made here (${missing}).`);
const onKernel = missing === null ? test : test.skip;
/** Side by side: most of the time is waiting for what nobody answers. */
const together = missing === null ? test.concurrent : test.skip;

/** The sound site with an outside address of its own, and rules and forwards of every kind. */
function site(): Plan {
  let plan = soundPolicy();
  const address = (farAddress(plan) as number) - 70;
  plan = put(plan, 'uplink', uplinkNamed(plan, 'fibre'), { address, addressing: 'static' });
  plan = put(plan, 'uplink', uplinkNamed(plan, 'mobile'), { enabled: false });
  for (const name of ['camera-guest', 'boss'])
    plan = done(plan, 'addHost', {
      subnet: subnetOf(plan, vlanFor(plan, name === 'boss' ? 'management' : 'guest').id, 4)!.id,
      name,
      kind: 'computer',
      assignment: 'static',
    });
  const uplink = uplinkNamed(plan, 'fibre').id;
  plan = done(plan, 'addForward', {
    uplink,
    target: cardOf(plan, 'cam-1').id,
    inside: 123,
    from: 8123,
    protocol: 'udp',
  });
  plan = done(plan, 'addForward', { uplink, target: cardOf(plan, 'cam-1').id, inside: 554, from: 8554 });
  const device = (name: string) => ({ device: deviceNamed(plan, name).id });
  plan = done(plan, 'addRule', {
    action: 'deny',
    from: [device('desk')],
    to: [{ zone: zoneNamed(plan, 'Internet').id }],
    services: ['stdssh'],
    note: 'no "SSH" out; accept; drop',
  });
  return done(plan, 'addRule', {
    action: 'allow',
    from: [{ zone: zoneNamed(plan, 'Guests').id }],
    to: [device('phone')],
    services: ['stdhttps'],
  });
}

describe('the ruleset of a gateway', () => {
  onKernel('is one that the kernel takes, whatever was done to the site', () => {
    const hosts = new Namespaces();
    hosts.add('check');
    try {
      let lines = 0;
      fc.assert(
        fc.property(damagedPolicy, (damage) => {
          const plan = buildPolicy(damage, site());
          fc.pre(filterOf(plan, deviceNamed(plan, 'gw-1')) === 'stateful');
          const text = nftRuleset(plan, deviceNamed(plan, 'gw-1'), TODAY);
          lines += text.split('\n').length;
          hosts.exec('check', 'nft', ['-c', '-f', '-'], text);
        }),
        { numRuns: 60, seed: 3 },
      );
      expect(lines).toBeGreaterThan(60 * 30);
    } finally {
      hosts.close();
    }
  });

  const known = async (plan: Plan, more: readonly IpAddress[] = []) => {
    const compared = await compare(plan, more);
    if (typeof compared === 'string') throw new Error(compared);
    expect(compared.wrong).toEqual([]);
    return compared;
  };

  together(
    'does on a real kernel what the probe says: between hosts, to the gateway, out, and in by forwards',
    async () => {
      const { connected, asked } = await known(site());
      expect(connected).toBeGreaterThan(50);
      expect(asked - connected).toBeGreaterThan(120);
    },
  );

  together('translates one to one on a real kernel as the probe says, both ways', async () => {
    const plain = site();
    const [{ subnet, address }] = addressesOn(plain, cardOf(plain, 'cam-1').id) as [Address];
    const { prefix } = plain.subnet.get(subnet)!;
    const outside = networkOf(parseAddress('10.99.7.0')!, prefix.length);
    const plan = done(plain, 'addTranslation', { subnet, outside: formatPrefix(outside) });
    const alias = addOffset(outside.address, (address as number) - (prefix.address as number));
    expect((await known(plan, [alias])).connected).toBeGreaterThan(50);
  });

  together.each(['allow', 'deny'] as const)(
    'gives who comes over another router the rights of its own segment, not of the way it came (%s)',
    async (decision) => {
      let plan = behindSwitch(site(), true);
      // The segment between the routers may reach the gateway; what is asked is what the cell behind it may.
      plan = done(plan, 'ownZone', { vlan: vlanFor(plan, 'transit').id });
      const zoneOf = (purpose: string) =>
        [...plan.zone.values()].find(({ vlans }) => vlans.includes(vlanFor(plan, purpose).id))!;
      const [own, cell] = [zoneOf('transit'), zoneOf('control-cell')];
      const gateway = [...plan.zone.values()].find((zone) => zone.gateway)!;
      const pairs = [
        { from: own.id, to: gateway.id },
        { from: cell.id, to: own.id },
      ];
      plan = done(plan, 'decidePairs', { pairs, decision: 'allow', services: [] });
      if (decision === 'allow')
        plan = done(plan, 'decidePairs', {
          pairs: [{ from: cell.id, to: gateway.id }],
          decision,
          services: [],
        });
      expect((await known(plan)).connected).toBeGreaterThan(50);
    },
  );

  together.each(['allow', 'deny'] as const)(
    'where the answer takes another way: no connection, and UDP as the gateway takes it for new (%s)',
    async (decision) => {
      let plan = besideGateway(behindSwitch(site(), true), 'staff');
      const zoneOf = (purpose: string) =>
        [...plan.zone.values()].find(({ vlans }) => vlans.includes(vlanFor(plan, purpose).id))!;
      const [staff, cell] = [zoneOf('staff'), zoneOf('control-cell')];
      const pairs = [
        { from: staff.id, to: cell.id },
        { from: cell.id, to: staff.id },
      ];
      plan = done(plan, 'decidePairs', { pairs, decision, services: [] });
      expect((await known(plan)).connected).toBeGreaterThan(50);
    },
  );

  together(
    'where the gateway does not route: a forward leads nowhere, and the gateway does not answer for its target',
    async () => {
      const plain = site();
      const gateway = boxOf(plain, deviceNamed(plain, 'gw-1').id)!;
      const { connected, asked } = await known(put(plain, 'box', gateway, { layer3: false }));
      expect(asked - connected).toBeGreaterThan(120);
    },
  );

  together('lets answers leave by the uplink the question came in by', async () => {
    let plan = site();
    const mobile = uplinkNamed(plan, 'mobile');
    plan = put(plan, 'uplink', mobile, { enabled: true, address: (farAddress(plan) as number) - 60 });
    plan = done(plan, 'addForward', { uplink: mobile.id, target: cardOf(plan, 'desk').id, inside: 443 });
    expect((await known(plan)).connected).toBeGreaterThan(50);
  });
});

test('segments without a name of their own are numbered, and the file says which is which', () => {
  const plan = site();
  const text = nftRuleset(plan, deviceNamed(plan, 'gw-1'), TODAY);
  for (const vlan of vlansOf(plan))
    if (subnetOf(plan, vlan.id, 4)) expect(text).toContain(`# vlan${vlan.vid}: ${vlan.name}`);
  // A note cannot end the comment it stands in.
  expect(text).toContain('comment "rule 2: deny desk to Internet: SSH"');
  expect(() => nftRuleset(plan, deviceNamed(plan, 'sw-a'), TODAY)).toThrow(/does not filter conversations/);
});

test('forwards that would be a line for each of very many ports are refused in words', () => {
  const plan = site();
  const [forward] = [...plan.forward.values()];
  const wide = (inside: number) =>
    withRecord(plan, 'forward', forward!.id, {
      ...forward!,
      protocol: 'both',
      from: 1,
      to: 60_000,
      inside,
      hairpin: true,
      enabled: true,
    });
  expect(() => nftRuleset(wide(2), deviceNamed(plan, 'gw-1'), TODAY)).toThrow(
    /gw-1 lead 240,000 ports to other numbers/,
  );
  expect(nftRuleset(wide(1), deviceNamed(plan, 'gw-1'), TODAY)).toContain('dport 1-60000');
});
