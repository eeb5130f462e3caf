import fc from 'fast-check';
import {
  type IpAddress,
  addOffset,
  formatAddress,
  parseAddress,
  formatPrefix,
  networkOf,
} from '../core/address';
import { nftRuleset } from '../core/formats';
import { type Plan, addressesOf, addressesOn, gatewaysOf, subnetOf, vlansOf, withRecord } from '../core/plan';
import { filterOf, wantedText } from '../core/model/policy';
import { farAddress, type Receiver, probe } from '../core/rehearse';
import { deviceNamed, put, vlanFor } from '../core/testing/gear';
import { cardOf, uplinkNamed } from '../core/testing/internet';
import { done } from '../core/testing/plans';
import { behindSwitch, besideGateway } from '../core/testing/routed';
import { buildPolicy, damagedPolicy, soundPolicy, zoneNamed } from '../core/testing/policy';
import { type CallProtocol, Namespaces, namespacesMissing } from './namespaces';

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

const HOSTS = ['desk', 'cam-1', 'phone', 'camera-guest', 'boss'];
const PORTS = [22, 53, 80, 123, 443, 554, 8123, 8554, 8443];
const PROTOCOLS: readonly CallProtocol[] = ['tcp', 'udp'];

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
      const { wrong, connected, refused } = await compared(site(), []);
      expect(wrong).toEqual([]);
      expect(connected).toBeGreaterThan(50);
      expect(refused).toBeGreaterThan(120);
    },
  );

  onKernel('translates one to one on a real kernel as the probe says, both ways', async () => {
    const plain = site();
    const subnet = plan4(plain, 'cam-1');
    const outside = networkOf(parseAddress('10.99.7.0')!, subnet.prefix.length);
    const plan = done(plain, 'addTranslation', { subnet: subnet.id, outside: formatPrefix(outside) });
    const known = addOffset(
      outside.address,
      (addressesOn(plan, cardOf(plan, 'cam-1').id)[0]!.address as number) - (subnet.prefix.address as number),
    );
    const { wrong, connected } = await compared(plan, [known]);
    expect(wrong).toEqual([]);
    expect(connected).toBeGreaterThan(50);
  });

  onKernel(
    'gives who comes over another router the rights of its own segment, not of the way it came',
    async () => {
      let plan = behindSwitch(site(), true);
      const transit = subnetOf(plan, vlanFor(plan, 'transit').id, 4)!;
      // The segment between the routers may reach the gateway, the cell behind it may not.
      plan = done(plan, 'ownZone', { vlan: transit.vlan });
      const zoneOf = (purpose: string) =>
        [...plan.zone.values()].find(({ vlans }) => vlans.includes(vlanFor(plan, purpose).id))!;
      const own = zoneOf('transit');
      const gateway = [...plan.zone.values()].find((zone) => zone.gateway)!;
      plan = done(plan, 'decidePairs', {
        pairs: [
          { from: own.id, to: gateway.id },
          // The other router lets its cell out; what is asked is what the gateway makes of it.
          { from: zoneOf('control-cell').id, to: own.id },
        ],
        decision: 'allow',
        services: [],
      });
      const near = formatAddress(gatewaysOf(plan, transit.id)[0]!.address);
      const via = addressesOf(plan, transit.id).find(({ gateway: is }) => !is)!.address;
      const cell = plan4(plan, 'press');
      const inCell = gatewayOf(plan, 'press');
      const press = formatAddress(addressesOn(plan, cardOf(plan, 'press').id)[0]!.address);
      const { length } = transit.prefix;
      const hosts = new Namespaces();
      try {
        for (const name of ['gw-1', 'core', 'press']) hosts.add(name);
        const leg = `vlan${plan.vlan.get(transit.vlan)!.vid}`;
        hosts.cable('gw-1', leg, 'core', 'eth0');
        hosts.cable('core', 'eth1', 'press', 'eth0');
        hosts.ip('gw-1', `addr add ${near}/${length} dev ${leg}`);
        hosts.ip('core', `addr add ${formatAddress(via)}/${length} dev eth0`);
        hosts.ip('core', `addr add ${inCell}/${cell.prefix.length} dev eth1`);
        hosts.ip('press', `addr add ${press}/${cell.prefix.length} dev eth0`);
        hosts.exec('core', 'sh', ['-c', 'echo 1 > /proc/sys/net/ipv4/ip_forward']);
        hosts.ip('press', `route add default via ${inCell}`);
        hosts.ip('gw-1', `route add ${formatPrefix(cell.prefix)} via ${formatAddress(via)}`);
        hosts.exec('gw-1', 'nft', ['-f', '-'], nftRuleset(plan, deviceNamed(plan, 'gw-1'), TODAY));
        await hosts.serve('gw-1', PORTS);
        const calls = PROTOCOLS.flatMap((protocol) => PORTS.map((port) => [near, port, protocol] as const));
        const heard = await hosts.calls('press', calls);
        const said = calls.map(([, port, protocol]) => {
          const asked = { from: asDevice(plan, 'press'), to: { address: parseAddress(near)! } };
          return probe(plan, { ...asked, wanted: { protocol, port } }, TODAY).delivered ? 'gw-1' : '';
        });
        expect(heard).toEqual(said);
        // As any segment it may ask names and the time, and nothing else.
        const open = calls
          .filter((_, at) => heard[at] !== '')
          .map(([, port, protocol]) => `${protocol} ${port}`);
        expect(open).toEqual(['tcp 53', 'udp 53', 'udp 123']);
        // What stands in the segment between them is let through.
        expect(new Set(await hosts.calls('core', calls))).toEqual(new Set(['gw-1']));
      } finally {
        hosts.close();
      }
    },
  );

  onKernel.each([true, false])(
    'where the answer takes another way: no connection, and UDP as the gateway takes it for new (allowed: %s)',
    async (allowed) => {
      let plan = besideGateway(behindSwitch(site(), true), 'staff');
      const zoneOf = (purpose: string) =>
        [...plan.zone.values()].find(({ vlans }) => vlans.includes(vlanFor(plan, purpose).id))!.id;
      const [cell, devices] = [zoneOf('control-cell'), zoneOf('staff')];
      const decide = (from: string, to: string, decision: string) => {
        plan = done(plan, 'decidePairs', { pairs: [{ from, to }], decision, services: [] });
      };
      decide(cell, devices, 'allow');
      decide(devices, cell, allowed ? 'allow' : 'deny');
      const hosts = new Namespaces();
      try {
        for (const name of ['wire', 'gw-1', 'core', 'press', 'desk']) hosts.add(name);
        hosts.ip('wire', 'link add br0 type bridge');
        hosts.ip('wire', 'link set br0 up');
        const join = (name: string, end: string) => {
          hosts.cable('wire', `to-${name}`, name, end);
          hosts.ip('wire', `link set to-${name} master br0`);
        };
        const transit = subnetOf(plan, vlanFor(plan, 'transit').id, 4)!;
        const legOf = (purpose: string) => `vlan${vlanFor(plan, purpose).vid}`;
        join('gw-1', legOf('staff'));
        join('core', 'eth2');
        join('desk', 'eth0');
        hosts.cable('gw-1', legOf('transit'), 'core', 'eth0');
        hosts.cable('core', 'eth1', 'press', 'eth0');
        const put = (name: string, dev: string, address: IpAddress, length: number) =>
          hosts.ip(name, `addr add ${formatAddress(address)}/${length} dev ${dev}`);
        const at = (name: string) => addressesOn(plan, cardOf(plan, name).id)[0]!.address;
        const [staff, inCell] = [plan4(plan, 'desk'), plan4(plan, 'press')];
        const near = gatewaysOf(plan, transit.id)[0]!.address;
        const via = addressesOf(plan, transit.id).find(({ gateway }) => !gateway)!.address;
        put('gw-1', legOf('staff'), parseAddress(gatewayOf(plan, 'desk'))!, staff.prefix.length);
        put('gw-1', legOf('transit'), near, transit.prefix.length);
        put('core', 'eth0', via, transit.prefix.length);
        put('core', 'eth1', parseAddress(gatewayOf(plan, 'press'))!, inCell.prefix.length);
        put('core', 'eth2', (staff.prefix.address as number) + 250, staff.prefix.length);
        put('desk', 'eth0', at('desk'), staff.prefix.length);
        put('press', 'eth0', at('press'), inCell.prefix.length);
        for (const name of ['gw-1', 'core'])
          hosts.exec(name, 'sh', ['-c', 'echo 1 > /proc/sys/net/ipv4/ip_forward']);
        for (const name of ['desk', 'press'])
          hosts.ip(name, `route add default via ${gatewayOf(plan, name)}`);
        hosts.ip('gw-1', `route add ${formatPrefix(inCell.prefix)} via ${formatAddress(via)}`);
        hosts.exec('gw-1', 'nft', ['-f', '-'], nftRuleset(plan, deviceNamed(plan, 'gw-1'), TODAY));
        await Promise.all(['desk', 'press'].map((name) => hosts.serve(name, PORTS)));
        const asked = async (from: string, to: string) => {
          const calls = PROTOCOLS.flatMap((protocol) => [22, 443, 554].map((port) => ({ protocol, port })));
          const host = formatAddress(at(to));
          const heard = await hosts.calls(
            from,
            calls.map(({ protocol, port }) => [host, port, protocol]),
          );
          const said = calls.map((wanted) => {
            const question = { from: asDevice(plan, from), to: asDevice(plan, to), wanted };
            return probe(plan, question, TODAY).delivered ? to : '';
          });
          expect(heard).toEqual(said);
          return calls.filter((_, i) => heard[i] === to).map(({ protocol }) => protocol);
        };
        const udp = ['udp', 'udp', 'udp'];
        expect(await asked('desk', 'press')).toEqual(allowed ? udp : []);
        expect(await asked('press', 'desk')).toEqual(allowed ? udp : []);
      } finally {
        hosts.close();
      }
    },
  );
});

const plan4 = (plan: Plan, name: string) =>
  plan.subnet.get(addressesOn(plan, cardOf(plan, name).id)[0]!.subnet)!;

/**
 * Runs the site on the kernel and asks everything of everybody: hosts, gateway, Internet, and `more` addresses. Returns
 * where kernel and probe differ, and how many calls were answered and how many not.
 */
async function compared(plan: Plan, more: readonly IpAddress[]) {
  const hosts = new Namespaces();
  try {
    hosts.add('gw-1');
    hosts.exec('gw-1', 'sh', ['-c', 'echo 1 > /proc/sys/net/ipv4/ip_forward']);
    const at = (name: string) => formatAddress(addressesOn(plan, cardOf(plan, name).id)[0]!.address);
    for (const name of HOSTS) {
      const subnet = plan4(plan, name);
      const gateway = gatewayOf(plan, name);
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

    const results = await Promise.all(
      [...HOSTS, 'internet'].map(async (from) => {
        const outsider = from === 'internet';
        const others = HOSTS.filter((name) => name !== from);
        const calls = PROTOCOLS.flatMap((protocol) =>
          PORTS.flatMap((port): Call[] => [
            // From the Internet a host inside is reached by no address of its own, so its forwards are asked below.
            ...others.map((to) => ({
              protocol,
              port,
              host: at(to),
              to: outsider ? null : asDevice(plan, to),
            })),
            ...(outsider
              ? [{ protocol, port, host: outside, to: { address: parseAddress(outside)! } }]
              : [
                  { protocol, port, host: gatewayOf(plan, from), to: { gateway: true as const } },
                  { protocol, port, host: far, to: { internet: true as const } },
                  ...more.map((address) => ({
                    protocol,
                    port,
                    host: formatAddress(address),
                    to: { address },
                  })),
                ]),
          ]),
        );
        const heard = await hosts.calls(
          from,
          calls.map(({ host, port, protocol }) => [host, port, protocol] as const),
        );
        return calls.map((call, i) => ({ ...call, from, heard: heard[i]! }));
      }),
    );
    const asked = results.flat();
    const wrong = asked.flatMap((call) => {
      const expected = answering(plan, call);
      return call.heard === expected
        ? []
        : [
            `${call.from} to ${call.host} ${wantedText(call)}: heard “${call.heard}”, the probe says “${expected}”`,
          ];
    });
    const connected = asked.filter(({ heard }) => heard !== '').length;
    return { wrong, connected, refused: asked.length - connected };
  } finally {
    hosts.close();
  }
}

interface Call {
  readonly protocol: CallProtocol;
  readonly port: number;
  /** The address called. */
  readonly host: string;
  /** As the probe is asked; null where it is known that nobody may answer. */
  readonly to: Receiver | null;
}

const asDevice = (plan: Plan, name: string) => ({ device: deviceNamed(plan, name).id });

const gatewayOf = (plan: Plan, name: string): string => {
  const { subnet } = addressesOn(plan, cardOf(plan, name).id)[0]!;
  return formatAddress(gatewaysOf(plan, subnet)[0]!.address);
};

/** The name of who answers according to the probe; empty for nobody. */
function answering(plan: Plan, { from, to, protocol, port }: Call & { readonly from: string }): string {
  if (to === null) return '';
  const sender = from === 'internet' ? { internet: true as const } : asDevice(plan, from);
  const answer = probe(plan, { from: sender, to, wanted: { protocol, port } }, TODAY);
  if (!answer.delivered) return '';
  return 'internet' in to ? 'internet' : answer.forth.at(-1)!.what;
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
