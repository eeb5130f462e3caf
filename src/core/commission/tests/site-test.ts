import { formatAddress } from '../../address';
import { type Trial, readTrial, seenIn, trialKey } from '../../exercises';
import { type Wanted, wantedText } from '../../model/policy';
import { type Plan, type Vlan, addressesOn, interfacesOf } from '../../plan';
import { type Fault, type ProbeQuestion, type Receiver, nameOfReceiver, plugIn, probe } from '../../rehearse';

/** One test: what is done, what must be seen and why. */

export interface SiteTest {
  /** The same for the same test, whenever it is made up. */
  readonly key: string;
  /** As the rehearsal makes it; null for a failure that is brought about. */
  readonly trial: Trial | null;
  /** The failure that is brought about. */
  readonly fault?: Fault;
  readonly does: string;
  /** What is seen when it comes out as expected, as `seenIn` says it; null for a failure that is brought about. */
  readonly seen: string | null;
  readonly expects: string;
  readonly why: string;
  /** Why it cannot come out like that by the plan as it is; empty where it can. */
  readonly amiss: string;
}

/** Tests made from one place, in the order in which one gets there. */
export interface TestRound {
  readonly at: string;
  /** How one gets there: which plug goes where. */
  readonly how: string;
  /** The socket, where it is one. */
  readonly port: string | null;
  /** Where that is in the building; empty where nobody wrote it down, or where it is everywhere. */
  readonly place: string;
  readonly tests: readonly SiteTest[];
}
export interface TestPlan {
  readonly rounds: readonly TestRound[];
  /** What is not tried, as it is set like something that is. */
  readonly assumed: readonly string[];
}

/** Where somebody lands who comes in, or where they should. */
export function landingTest(
  plan: Plan,
  trial: Trial & { readonly kind: 'lease' | 'join' },
  vlan: Vlan | undefined,
  today: string | null,
): Pick<SiteTest, 'key' | 'trial' | 'seen' | 'expects' | 'amiss'> {
  const { sentence, works } = plugIn(plan, trial.kind === 'join' ? trial.at : { port: trial.port }, today);
  const told = `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}.`;
  const made = { key: trialKey(trial), trial };
  if (works || !vlan)
    return {
      ...made,
      seen: seenIn(plan, trial, readTrial(plan, trial, today)),
      expects: told,
      amiss: works ? '' : told,
    };
  return {
    ...made,
    seen: vlan.id,
    expects: `You land in ${vlan.name}, with an address and a gateway.`,
    amiss: told,
  };
}

/** How somebody tries it who has a laptop. */
function doesText(plan: Plan, to: Receiver, wanted: Wanted): string {
  const name = nameOfReceiver(plan, to);
  const [own] =
    'device' in to ? interfacesOf(plan, to.device).flatMap(({ id }) => addressesOn(plan, id)) : [];
  const who = own ? `${name}, ${formatAddress(own.address)}` : name;
  if (wanted.protocol === 'icmp') return `Ping ${who}`;
  if (wanted.protocol === 'tcp' && (wanted.port === 443 || wanted.port === 80))
    return 'internet' in to
      ? 'Open a page in the Internet'
      : `Open the page of ${who} (${wantedText(wanted)})`;
  return `Open ${wantedText(wanted)} on ${who}`;
}

/** `wished`: whether somebody wants it to work; null where nobody said so, and it is as the plan makes it. */
export function talkTest(
  plan: Plan,
  question: ProbeQuestion,
  why: string,
  wished: boolean | null,
  today: string | null,
): SiteTest {
  const trial: Trial = { kind: 'talk', question };
  const { delivered, summary } = probe(plan, question, today);
  return {
    key: trialKey(trial),
    trial,
    does: doesText(plan, question.to, question.wanted),
    seen: (wished ?? delivered) ? 'answers' : 'silent',
    expects: (wished ?? delivered) ? 'It answers.' : 'It does not answer.',
    why,
    amiss: wished === null || wished === delivered ? '' : summary,
  };
}
