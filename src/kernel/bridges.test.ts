import fc from 'fast-check';
import { type Plan, withRecord } from '../core/plan';
import { type MadeLink, portAt, switches } from '../core/testing/switches';
import { treesOf, factoryStpPort, forwards } from '../core/model/tree';
import { Namespaces, namespacesMissing } from './namespaces';

const missing = namespacesMissing();
if (missing !== null)
  console.log(`Trees are not tried on the kernel: no network namespaces can be made here (${missing}).`);
const onKernel = missing === null ? test : test.skip;

/** Boxes with priorities, and links between two of them with a cost at each end. */
const drawn = fc.record({
  priorities: fc.array(fc.constantFrom(4096, 32_768, 32_768), { minLength: 3, maxLength: 5 }),
  links: fc.array(fc.tuple(fc.nat(4), fc.nat(4), fc.constantFrom(4, 4, 19), fc.constantFrom(4, 4, 19)), {
    minLength: 5,
    maxLength: 8,
  }),
});
type Drawn = typeof drawn extends fc.Arbitrary<infer T> ? T : never;

const boxName = (i: number) => `b${i}`;

interface Laid {
  readonly link: MadeLink;
  readonly costs: readonly [number, number];
}

/** The links as laid: the kernel numbers the ports of a bridge in the order in which they are plugged in. */
function laid({ priorities, links }: Drawn): Laid[] {
  const used = priorities.map(() => 0);
  return links.flatMap(([x, y, one, two]): Laid[] => {
    const [a, b] = [x % priorities.length, y % priorities.length];
    if (a === b || used[a] === 8 || used[b] === 8) return [];
    return [{ link: [boxName(a), ++used[a]!, boxName(b), ++used[b]!], costs: [one, two] }];
  });
}

function planOf(made: Drawn): Plan {
  const all = laid(made);
  const plan = switches(
    Object.fromEntries(
      made.priorities.map((priority, i) => [boxName(i), { mac: 0x10 + i, bridge: { priority } }]),
    ),
    all.map(({ link }) => link),
  );
  return all.reduce(
    (next, { link: [a, from, b, to], costs }) =>
      [
        [portAt(a, from), costs[0]],
        [portAt(b, to), costs[1]],
      ].reduce(
        (with_, [port, cost]) =>
          withRecord(with_, 'stpPort', `k${port}`, {
            ...factoryStpPort,
            id: `k${port}`,
            port: port as string,
            instance: 0,
            cost: cost as number,
          }),
        next,
      ),
    plan,
  );
}

/** By port: does it forward? As the rehearsal says. */
function rehearsed(plan: Plan): Record<string, boolean> {
  const [common] = treesOf(plan).grown;
  return Object.fromEntries(
    common!.ports.map(({ ports }, end) => [ports[0]!, forwards(common!.tree.roles[end]!)]),
  );
}

const STEADY = ['forwarding', 'blocking'];
const PATIENCE = 60_000;

onKernel('real bridges come to the same tree: the same root, the same ports blocked', async () => {
  const topologies = fc.sample(drawn, { numRuns: 6, seed: 17 });
  const hosts = new Namespaces();
  let blocked = 0;
  try {
    await Promise.all(
      topologies.map(async (made, n) => {
        const host = `t${n}`;
        hosts.add(host);
        made.priorities.forEach((priority, i) => {
          const name = boxName(i);
          hosts.ip(
            host,
            `link add ${name} type bridge stp_state 1 priority ${priority} forward_delay 200 hello_time 100`,
          );
          hosts.ip(host, `link set ${name} address 00:00:5e:00:53:${(0x10 + i).toString(16)}`);
        });
        for (const {
          link: [a, from, b, to],
          costs,
        } of laid(made)) {
          const [left, right] = [portAt(a, from), portAt(b, to)];
          hosts.ip(host, `link add ${left} type veth peer name ${right}`);
          for (const [end, box, cost] of [
            [left, a, costs[0]],
            [right, b, costs[1]],
          ] as const) {
            hosts.ip(host, `link set ${end} master ${box}`);
            hosts.ip(host, `link set ${end} type bridge_slave cost ${cost}`);
            hosts.ip(host, `link set ${end} up`);
          }
        }
        made.priorities.forEach((_, i) => hosts.ip(host, `link set ${boxName(i)} up`));
        const plan = planOf(made);
        const expected = rehearsed(plan);
        const states = () =>
          Object.fromEntries(
            (
              JSON.parse(hosts.exec(host, 'bridge', ['-j', 'link'])) as { ifname: string; state: string }[]
            ).map(({ ifname, state }) => [ifname, state]),
          );
        const forwarding = (now: Record<string, string>) =>
          Object.fromEntries(Object.keys(expected).map((id) => [id, now[id] === 'forwarding']));
        // The classic protocol waits two forward delays at each port before it forwards.
        const until = Date.now() + PATIENCE;
        let now = states();
        while (
          Date.now() < until &&
          (Object.values(now).some((state) => !STEADY.includes(state)) ||
            JSON.stringify(forwarding(now)) !== JSON.stringify(expected))
        ) {
          await new Promise((next) => setTimeout(next, 200));
          now = states();
        }
        expect(forwarding(now)).toEqual(expected);
        blocked += Object.values(expected).filter((passes) => !passes).length;
      }),
    );
    expect(blocked).toBeGreaterThan(8);
  } finally {
    hosts.close();
  }
});
