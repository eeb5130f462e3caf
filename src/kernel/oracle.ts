import fc from 'fast-check';
import { type IpAddress, familyOf, formatAddress } from '../core/address';
import { type Plan, boxOf, interfacesOf } from '../core/plan';
import { type Wanted, wantedText } from '../core/model/policy';
import { legUp, routersIn } from '../core/model/routing';
import {
  type Answer,
  type ProbeQuestion,
  farAddress,
  outsideAddress,
  outsideHost,
  probe,
} from '../core/rehearse';
import { buildGear, damagedGear, deviceNamed, put } from '../core/testing/gear';
import { buildInternet, damagedInternet } from '../core/testing/internet';
import { behindRouter, dualStack } from '../core/testing/outside';
import { buildPolicy, damagedPolicy, soundPolicy } from '../core/testing/policy';
import { behindSwitch, besideGateway } from '../core/testing/routed';
import { tried } from '../core/testing/plans';
import { INTERNET, unlaid } from '../core/lab';
import { layNetwork } from './lay';
import { compareLeases, drawnLeases, withLeases } from './leases';
import { type CallProtocol, PONG } from './namespaces';

/** Compares what the rehearsal says of a plan with what the kernel does with the same plan. */

const TODAY = '2026-05-04';
export const PORTS = [22, 53, 80, 443, 554, 8443];
const WANTED: readonly (Wanted & { readonly protocol: CallProtocol })[] = [
  ...(['tcp', 'udp'] as const).flatMap((protocol) => PORTS.map((port) => ({ protocol, port }))),
  { protocol: 'icmp', port: 8 },
];

const seconds: Readonly<Record<string, (plan: Plan) => Plan>> = {
  none: (plan) => plan,
  'behind a switch': (plan) => behindSwitch(plan, true),
  'no way back': (plan) => behindSwitch(plan, false),
  'beside the gateway': (plan) => besideGateway(behindSwitch(plan, true), 'staff'),
  'behind the gateway': behindRouter,
};
const filters = ['none', 'stateless', 'stateful'] as const;

/** Sites with a gateway, switches, a second router or none, uplinks, forwards, zones and rules, and what people do to them. */
export const drawnSite = fc
  .record({
    second: fc.constantFrom(...Object.keys(seconds)),
    filter: fc.constantFrom(...filters),
    six: fc.boolean(),
    gear: fc.oneof({ weight: 2, arbitrary: fc.constant([]) }, damagedGear),
    internet: fc.oneof(fc.constant([]), damagedInternet),
    policy: fc.oneof(fc.constant([]), damagedPolicy),
    hosts: fc.array(fc.tuple(fc.nat(9), fc.nat(99)), { maxLength: 4 }),
    leases: drawnLeases,
  })
  .map(({ second, filter, six, gear, internet, policy, hosts, leases }) => () => {
    let plan = seconds[second]!(soundPolicy());
    const core = deviceNamed(plan, 'core');
    if (core) plan = put(plan, 'box', boxOf(plan, core.id)!, { filter });
    if (six) plan = dualStack(plan);
    plan = buildPolicy(policy, buildInternet(internet, buildGear(gear, plan)));
    plan = hosts.reduce((next, [at, how]) => withOwnFilter(next, at, how), plan);
    return withLeases(plan, leases);
  });

/** One of the end devices lists a service that it listens on, or has a firewall of its own. */
function withOwnFilter(plan: Plan, at: number, how: number): Plan {
  const ends = [...plan.device.values()].filter(
    ({ id }) => !boxOf(plan, id) && interfacesOf(plan, id).length > 0,
  );
  const device = ends[at % Math.max(ends.length, 1)];
  if (!device) return plan;
  if (how % 2 === 0)
    return put(plan, 'device', device, { firewall: how % 4 === 0 ? 'own-subnet' : 'as-listed' });
  return tried(plan, 'addListener', {
    device: device.id,
    protocol: (['tcp', 'udp', 'both'] as const)[how % 3],
    port: PORTS[how % PORTS.length],
  });
}

interface Call extends ProbeQuestion {
  readonly caller: string;
  readonly called: string;
  /** Somewhere in the Internet. */
  readonly far: boolean;
  readonly wanted: Wanted & { readonly protocol: CallProtocol };
}

export interface Compared {
  readonly asked: number;
  readonly connected: number;
  /** Not asked: it rests on something that is not recorded, or on which of several uplinks is taken. */
  readonly left: number;
  /** Free ports that a client was plugged into, and how many of them got an address. */
  readonly clients: number;
  readonly leased: number;
  readonly wrong: readonly string[];
}

const nameOf = (plan: Plan, device: string): string => plan.device.get(device)!.name;

/** Everybody asks everybody, each router at each of its addresses, the Internet and `more`; the Internet asks each uplink. */
function callsIn(
  plan: Plan,
  more: readonly IpAddress[],
  hosts: readonly { device: string; address: IpAddress }[],
  routers: readonly string[],
): Call[] {
  // Whether a box answers at the address of an interface that is down differs from box to box.
  const legs = routers.flatMap((id) => {
    const router = routersIn(plan).get(id)!;
    return router.legs.filter(({ vlan }) => legUp(plan, router, vlan)).map(({ address }) => address);
  });
  const uplinks = routers.flatMap((id) => routersIn(plan).get(id)!.uplinks);
  const fronts = uplinks
    .filter(({ segment }) => segment === null)
    .map((uplink) => outsideAddress(plan, uplink));
  const inner = uplinks.flatMap((uplink) => outsideHost(plan, uplink)?.address ?? []);
  const outside = [...fronts, ...inner];
  const targets = [...new Set([...hosts.map(({ address }) => address), ...legs, ...outside, ...more])];
  const everywhere = targets.filter((address) => familyOf(address) === 6);
  const far = ([4, 6] as const).map((family) => farAddress(plan, family));
  return WANTED.flatMap((one) => [
    ...[...new Set(hosts.map(({ device }) => device))].flatMap((device) => {
      const own = hosts.filter((host) => host.device === device).map(({ address }) => address);
      return [...far, ...targets]
        .filter((address) => !own.includes(address))
        .map((address) => ({
          caller: device,
          called: formatAddress(address),
          far: far.includes(address),
          from: { device },
          to: { address },
          wanted: one,
        }));
    }),
    ...[...fronts, ...everywhere].map((address) => ({
      caller: INTERNET,
      called: formatAddress(address),
      far: false,
      from: { internet: true as const },
      to: { address },
      wanted: one,
    })),
  ]);
}

/** Who answers by the rehearsal; empty for nobody. */
const answering = (call: Call, answer: Answer): string =>
  !answer.delivered
    ? ''
    : call.wanted.protocol === 'icmp'
      ? PONG
      : call.far
        ? INTERNET
        : answer.forth.at(-1)!.what;

/** How often somebody who should answer and does not is asked again, and how many at once. */
const AGAIN = 3;
const FEW = 40;
const asCall = ({ call }: { readonly call: Call }) =>
  [call.called, call.wanted.port, call.wanted.protocol] as const;

/** Lays a plan and asks everything of everybody, `more` addresses too. A text says why it cannot be laid. */
export async function compare(plan: Plan, more: readonly IpAddress[] = []): Promise<Compared | string> {
  const why = unlaid(plan);
  if (why !== null) return why;
  const { net, hosts, routers } = layNetwork(plan, TODAY, PORTS);
  try {
    const calls = callsIn(plan, more, hosts, routers);
    const answers = calls.map((call) => probe(plan, call, TODAY));
    const laid = calls
      .map((call, i) => ({ call, answer: answers[i]! }))
      // The kernel shares nothing among uplinks: it takes the first.
      .filter(({ answer }) => !answer.assumed && answer.works !== null && answer.over === null)
      // Some answer a ping from what is their broadcast address, some do not.
      .filter(
        ({ call, answer }) => call.wanted.protocol !== 'icmp' || !/broadcast/.test(answer.stop?.why ?? ''),
      );
    const serving = [...new Set([...hosts.map(({ device }) => device), ...routers])];
    await Promise.all([
      net.serve(INTERNET, PORTS),
      ...serving.map((id) => net.serve(id, PORTS, nameOf(plan, id))),
    ]);
    const wrong: string[] = [];
    let connected = 0;
    const callers = new Set([...hosts.map(({ device }) => device), INTERNET]);
    await Promise.all(
      [...callers].map(async (caller) => {
        const mine = laid.filter(({ call }) => call.caller === caller);
        if (mine.length === 0) return;
        const heard = await net.calls(caller, mine.map(asCall));
        // A machine that is busy answers late: who is missed is asked again, a few at a time.
        for (let again = 0; again < AGAIN; again++) {
          const missed = mine.flatMap(({ call, answer }, i) =>
            heard[i] === '' && answering(call, answer) !== '' ? [i] : [],
          );
          for (let at = 0; at < missed.length; at += FEW) {
            const some = missed.slice(at, at + FEW);
            const now = await net.calls(
              caller,
              some.map((i) => asCall(mine[i]!)),
            );
            some.forEach((i, place) => (heard[i] = now[place]!));
          }
        }
        mine.forEach(({ call, answer }, i) => {
          const expected = answering(call, answer);
          if (heard[i] !== '') connected++;
          if (heard[i] === expected) return;
          const who = caller === INTERNET ? caller : nameOf(plan, caller);
          wrong.push(
            `${who} to ${call.called} ${wantedText(call.wanted)}: heard “${heard[i]}”, the probe says “${expected}” (${answer.summary})`,
          );
        });
      }),
    );
    const boxes = new Set(serving);
    const leases = await compareLeases(plan, net, (device) => boxes.has(device), TODAY);
    return {
      asked: laid.length,
      connected,
      left: calls.length - laid.length,
      clients: leases.clients,
      leased: leases.leased,
      wrong: [...wrong, ...leases.wrong],
    };
  } finally {
    net.close();
  }
}

/** Sums over the networks that could be laid; each thing that is wrong with the place of its network. */
export interface Total extends Compared {
  readonly networks: number;
  /** How many networks could not be laid, by reason. */
  readonly unlaid: ReadonlyMap<string, number>;
}

/** So many networks stand at once: most of the time is waiting for what nobody answers. */
const SIDE_BY_SIDE = 3;

/** Compares one plan after the other; `told` hears of each that is done. */
export async function compareAll(plans: readonly Plan[], told: (done: number) => void): Promise<Total> {
  const unlaid = new Map<string, number>();
  const results: (Compared & { readonly at: number })[] = [];
  let [next, done] = [0, 0];
  const work = async () => {
    while (next < plans.length) {
      const at = next++;
      const result = await compare(plans[at]!);
      if (typeof result === 'string') unlaid.set(result, (unlaid.get(result) ?? 0) + 1);
      else results.push({ ...result, at });
      told(++done);
    }
  };
  await Promise.all(Array.from({ length: SIDE_BY_SIDE }, work));
  const sum = (of: (result: Compared) => number) => results.reduce((total, one) => total + of(one), 0);
  return {
    networks: results.length,
    asked: sum(({ asked }) => asked),
    connected: sum(({ connected }) => connected),
    left: sum(({ left }) => left),
    clients: sum(({ clients }) => clients),
    leased: sum(({ leased }) => leased),
    wrong: results.flatMap(({ at, wrong }) => wrong.map((line) => `network ${at}: ${line}`)),
    unlaid,
  };
}
