import { formatPrefix } from '../../address';
import { type Trial, endDevices, readTrial, seenIn, trialKey, trialsFor, trialsNear } from '../../exercises';
import type { Wanted } from '../../model/policy';
import { type Plan, derive } from '../../plan';
import { airTitle, senderTitle } from '../../rehearse';
import { type SiteTest, landingTest, talkTest } from './site-test';

/** Tests beyond those of the site, which tell causes apart when one of those differs. */

const PING: Wanted = { protocol: 'icmp', port: 8 };
/** Which of two does not answer is told by a third. */
const PEERS = 3;

/** What is tried of some devices, with others of their segment. */
export function trialsAround(plan: Plan, near: readonly string[]): readonly Trial[] {
  const ends = endDevices(plan);
  const peers = ends
    .filter(({ device }) => near.includes(device.id))
    .flatMap(({ device, subnet }) =>
      ends
        .filter((other) => other.subnet === subnet && other.device !== device)
        .slice(0, PEERS)
        .map((other): Trial => ({
          kind: 'talk',
          question: { from: { device: device.id }, to: { device: other.device.id }, wanted: PING },
        })),
    );
  return [...trialsNear(plan, near), ...peers];
}

/** Everything that may be tried, by the key of its test. */
export const furtherTrials = derive((plan): ReadonlyMap<string, Trial> => {
  const all = endDevices(plan).map(({ device }) => device.id);
  const trials = [...trialsFor(plan, []), ...trialsAround(plan, all)];
  return new Map(trials.map((trial) => [trialKey(trial), trial]));
});

const WHY = 'it tells what is likely from what is not';

/** A trial as a test, with where it is made. */
export function furtherTest(
  plan: Plan,
  trial: Trial,
  today: string | null,
): { readonly at: string; readonly test: SiteTest } {
  if (trial.kind === 'talk')
    return {
      at: senderTitle(plan, trial.question.from),
      test: talkTest(plan, trial.question, WHY, null, today),
    };
  if (trial.kind === 'lease' || trial.kind === 'join') {
    const place = trial.kind === 'join' ? trial.at : { port: trial.port };
    const vlan =
      trial.kind === 'join' ? plan.ssid.get(trial.at.ssid)!.vlan : plan.port.get(trial.port)!.untagged;
    return {
      at: trial.kind === 'join' ? airTitle(plan, trial.at) : senderTitle(plan, place),
      test: {
        ...landingTest(plan, trial, vlan === null ? undefined : plan.vlan.get(vlan), today),
        does: trial.kind === 'join' ? 'Join it' : 'Plug in a laptop that asks for an address',
        why: WHY,
      },
    };
  }
  const seen = seenIn(plan, trial, readTrial(plan, trial, today));
  const base = { key: trialKey(trial), trial, seen, why: WHY, amiss: '' };
  switch (trial.kind) {
    case 'names':
      return {
        at: plan.device.get(trial.device)!.name,
        test: {
          ...base,
          does: 'Look up a name',
          expects: seen === 'answers' ? 'It is answered.' : 'Nobody answers.',
        },
      };
    case 'clash': {
      const { prefix, vlan } = plan.subnet.get(trial.subnet)!;
      return {
        at: plan.vlan.get(vlan)!.name,
        test: {
          ...base,
          does: `Ask with ARP for each address of ${formatPrefix(prefix)} that is given out`,
          expects: seen === 'once' ? 'One MAC address answers for each.' : 'Two answer for one of them.',
        },
      };
    }
    case 'storm':
      return {
        at: 'the switches',
        test: {
          ...base,
          does: 'Look at the lamps of the ports',
          expects: seen === 'still' ? 'They flicker each in its own time.' : 'All flicker at once.',
        },
      };
  }
}
