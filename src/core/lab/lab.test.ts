import fc from 'fast-check';
import { linksOf } from '../model/wiring';
import { Draft } from '../plan';
import { soundAccess } from '../testing/access';
import { soundInternet } from '../testing/internet';
import { changeAtRandom, withEveryKind } from '../testing/kinds';
import { behindRouter } from '../testing/outside';
import { soundPolicy } from '../testing/policy';
import { runs } from '../testing/runs';
import { soundTrees } from '../testing/trees';
import { type LaidHost, laidWithQuestions, unlaid } from './';

const TODAY = '2026-12-01';
const DEAD = 'link add name eth1 type veth peer name no-eth1';

/** What a host is told to use before it is there; the same name made twice counts too. */
function astray({ id, links }: LaidHost, cables: readonly string[]): string[] {
  const there = new Set(['lo']);
  const wrong: string[] = [];
  const make = (name: string, line: string) => {
    if (there.has(name)) wrong.push(`${id}: ${name} twice (${line})`);
    there.add(name);
  };
  for (const name of cables) make(name, 'cable');
  for (const line of links) {
    for (const [, name] of line.matchAll(/link add (?:name )?(\S+)|peer name (\S+)/g))
      if (name) make(name, line);
    for (const [, name] of line.matchAll(/peer name (\S+)/g)) make(name!, line);
    for (const [, name] of line.matchAll(/(?:dev|master|link set) (\S+)/g))
      if (!there.has(name!)) wrong.push(`${id}: no ${name} (${line})`);
  }
  return wrong;
}

test('whatever a plan holds, no host is told to use an interface that it has not', () => {
  const sites = [behindRouter(soundInternet()), soundPolicy(), soundAccess(), soundTrees(soundPolicy())].map(
    (plan, at) => withEveryKind(plan, at),
  );
  let laid = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(...sites),
      fc.array(fc.nat(), { minLength: 1, maxLength: 15 }),
      (start, seeds) => {
        const plan = seeds.reduce(changeAtRandom, start);
        if (unlaid(plan) !== null) return;
        laid++;
        const { hosts, cables } = laidWithQuestions(plan, TODAY);
        const at = (host: string) =>
          cables.flatMap(({ from, to }) =>
            [from, to].filter((end) => end.host === host).map(({ name }) => name),
          );
        expect(hosts.flatMap((host) => astray(host, at(host.id)))).toEqual([]);
      },
    ),
    { numRuns: runs(60) },
  );
  expect(laid).toBeGreaterThan(5);
});

test('whoever is plugged into a device that is no switch any more stands without a carrier', () => {
  const sound = soundAccess();
  const hub = [...sound.box.values()].find(({ vlanAware }) => !vlanAware)!;
  const draft = new Draft(sound, 'gone');
  draft.remove('box', hub.id);
  const { hosts, cables } = laidWithQuestions(draft.plan, TODAY);
  const joined = cables.flatMap(({ from, to }) => [from.host, to.host]);
  const alone = hosts.filter(({ id, links }) => !joined.includes(id) && links.length > 0);
  const there = alone.filter(({ id }) => sound.device.get(id)?.kind === 'computer');
  expect(there.length).toBeGreaterThan(0);
  for (const host of there) expect([host.links[0], astray(host, [])]).toEqual([DEAD, []]);
});

test('so does a router whose outside is plugged into one', () => {
  const sound = behindRouter(soundInternet());
  const inner = [...sound.uplink.values()].find(({ segment }) => segment !== null)!;
  const { to } = linksOf(sound).get(inner.port!)![0]!;
  const box = [...sound.box.values()].find(({ device }) => device === sound.port.get(to)!.device)!;
  const draft = new Draft(sound, 'gone');
  draft.remove('box', box.id);
  const { hosts, cables } = laidWithQuestions(draft.plan, TODAY);
  const ends = cables.flatMap(({ from, to: other }) => [from, other]);
  for (const host of hosts) {
    const names = ends.filter((end) => end.host === host.id).map(({ name }) => name);
    expect(astray(host, names)).toEqual([]);
  }
});
