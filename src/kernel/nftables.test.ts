import fc from 'fast-check';
import { formatAddress } from '../core/address/ip';
import { formatPrefix } from '../core/address/prefix';
import { nftRuleset } from '../core/formats/nftables';
import type { Plan } from '../core/plan/plan';
import { addressesOn, gatewaysOf, subnetOf, vlansOf } from '../core/plan/view';
import { filterOf } from '../core/policy/enforce';
import { wantedText } from '../core/policy/decide';
import { farAddress } from '../core/rehearse/host';
import { probe } from '../core/rehearse/probe';
import { deviceNamed, put, vlanFor } from '../core/testing/gear';
import { cardOf, uplinkNamed } from '../core/testing/internet';
import { done } from '../core/testing/plans';
import { buildPolicy, damagedPolicy, soundPolicy, zoneNamed } from '../core/testing/policy';
import { Namespaces, namespacesMissing } from './namespaces';

const TODAY = '2026-05-04';
const missing = namespacesMissing();
if (missing !== null)
  console.log(`Rulesets are not tried on the kernel: no network namespaces can be made here (${missing}).`);
const onKernel = missing === null ? test : test.skip;

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

const HOSTS = ['desk', 'cam-1', 'phone', 'camera-guest', 'boss'];
const PORTS = [22, 53, 80, 443, 554, 8554, 8443];

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

  onKernel(
    'does on a real kernel what the probe says: between hosts, to the gateway, out, and in by forwards',
    async () => {
      const plan = site();
      const hosts = new Namespaces();
      try {
        hosts.add('gw-1');
        hosts.exec('gw-1', 'sh', ['-c', 'echo 1 > /proc/sys/net/ipv4/ip_forward']);
        const at = (name: string) => formatAddress(addressesOn(plan, cardOf(plan, name).id)[0]!.address);
        for (const name of HOSTS) {
          const subnet = plan.subnet.get(addressesOn(plan, cardOf(plan, name).id)[0]!.subnet)!;
          const gateway = formatAddress(gatewaysOf(plan, subnet.id)[0]!.address);
          const leg = `vlan${plan.vlan.get(subnet.vlan)!.vid}`;
          hosts.add(name);
          hosts.cable('gw-1', leg, name, 'eth0');
          hosts.ip('gw-1', `addr add ${gateway}/${subnet.prefix.length} dev ${leg}`);
          hosts.ip(name, `addr add ${at(name)}/${subnet.prefix.length} dev eth0`);
          hosts.ip(name, `route add default via ${gateway}`);
        }
        const outside = formatAddress(uplinkNamed(plan, 'fibre').address!);
        const far = formatAddress(farAddress(plan));
        hosts.add('internet');
        hosts.cable('gw-1', 'wan0', 'internet', 'eth0');
        hosts.ip('gw-1', `addr add ${outside}/24 dev wan0`);
        hosts.ip('internet', `addr add ${far}/24 dev eth0`);
        // Somebody in the Internet who tries inside addresses finds the gateway, as a neighbour of the provider's could.
        for (const { prefix } of plan.subnet.values())
          if (typeof prefix.address === 'number')
            hosts.ip('internet', `route add ${formatPrefix(prefix)} via ${outside}`);
        hosts.exec('gw-1', 'nft', ['-f', '-'], nftRuleset(plan, deviceNamed(plan, 'gw-1'), TODAY));
        await Promise.all([...HOSTS, 'gw-1', 'internet'].map((name) => hosts.serve(name, PORTS)));

        const all = [...HOSTS, 'internet'];
        const results = await Promise.all(
          all.map(async (from) => {
            const gateway = from === 'internet' ? null : { gateway: true as const };
            const others = HOSTS.filter((name) => name !== from);
            const calls = PORTS.flatMap((port) => [
              // From the Internet a host inside is reached by no address of its own, so its forwards are asked below.
              ...others.map((to) => ({ to, host: at(to), port, question: from === 'internet' ? null : to })),
              ...(gateway ? [{ to: 'gw-1', host: gatewayOf(plan, from), port, question: 'gateway' }] : []),
              ...(from === 'internet'
                ? [{ to: 'outside', host: outside, port, question: 'outside' }]
                : [{ to: 'internet', host: far, port, question: 'internet' }]),
            ]);
            const heard = await hosts.calls(
              from,
              calls.map(({ host, port }) => [host, port] as const),
            );
            return calls.map((call, i) => ({ ...call, from, heard: heard[i]! }));
          }),
        );
        let connected = 0;
        const wrong: string[] = [];
        for (const { from, to, host, port, question, heard } of results.flat()) {
          const wanted = { protocol: 'tcp' as const, port };
          const expected = question === null ? '' : answering(plan, from, question, port);
          if (heard !== '') connected++;
          if (heard !== expected)
            wrong.push(
              `${from} to ${to} (${host}) ${wantedText(wanted)}: heard “${heard}”, the probe says “${expected}”`,
            );
        }
        expect(wrong).toEqual([]);
        expect(connected).toBeGreaterThan(25);
        expect(results.flat().length - connected).toBeGreaterThan(60);
      } finally {
        hosts.close();
      }
    },
  );
});

const gatewayOf = (plan: Plan, name: string): string => {
  const { subnet } = addressesOn(plan, cardOf(plan, name).id)[0]!;
  return formatAddress(gatewaysOf(plan, subnet)[0]!.address);
};

/** The name of who answers according to the probe; empty for nobody. */
function answering(plan: Plan, from: string, question: string, port: number): string {
  const sender = from === 'internet' ? { internet: true as const } : { device: deviceNamed(plan, from).id };
  const outside = uplinkNamed(plan, 'fibre').address!;
  const to =
    question === 'gateway'
      ? { gateway: true as const }
      : question === 'internet'
        ? { internet: true as const }
        : question === 'outside'
          ? { address: outside }
          : { device: deviceNamed(plan, question).id };
  const answer = probe(plan, { from: sender, to, wanted: { protocol: 'tcp', port } }, TODAY);
  if (!answer.delivered) return '';
  const last = answer.forth.at(-1)!;
  return question === 'internet' ? 'internet' : last.what;
}

test('segments without a name of their own are numbered, and the file says which is which', () => {
  const plan = site();
  const text = nftRuleset(plan, deviceNamed(plan, 'gw-1'), TODAY);
  for (const vlan of vlansOf(plan))
    if (subnetOf(plan, vlan.id, 4)) expect(text).toContain(`# vlan${vlan.vid}: ${vlan.name}`);
  // A note cannot end the comment it stands in.
  expect(text).toContain('comment "rule 2: deny desk to Internet: SSH"');
  expect(() => nftRuleset(plan, deviceNamed(plan, 'sw-a'), TODAY)).toThrow(/does not filter conversations/);
});
