import { deriveBy, memo, type Plan, type Question, portTitle } from '../../plan';
import { wantedText } from '../../model/policy';
import { airTitle } from '../entry';
import { type Answer, probe } from '../probe';
import { type ProbeQuestion, type Receiver, type Sender, nameOfReceiver } from '../question';

const sorted = memo((questions: Plan['question']) =>
  [...questions.values()].sort((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : a.id < b.id ? -1 : 1)),
);
export const questionsOf = (plan: Plan): readonly Question[] => sorted(plan.question);

/** A question as the probe takes it. */
export function askedBy(question: Question): ProbeQuestion {
  const { fromPort, fromDevice, fromVlan, fromTunnel, fromSsid } = question;
  const { toDevice, toVlan, toAddress, toGateway, protocol, port } = question;
  const from: Sender =
    fromPort !== null
      ? { port: fromPort }
      : fromSsid !== null && fromDevice !== null
        ? { ssid: fromSsid, at: fromDevice }
        : fromDevice !== null
          ? { device: fromDevice }
          : fromVlan !== null
            ? { vlan: fromVlan }
            : fromTunnel !== null
              ? { tunnel: fromTunnel }
              : { internet: true };
  const to: Receiver =
    toDevice !== null
      ? { device: toDevice }
      : toVlan !== null
        ? { vlan: toVlan }
        : toAddress !== null
          ? { address: toAddress }
          : toGateway
            ? { gateway: true }
            : { internet: true };
  return { from, to, wanted: { protocol, port } };
}

/** The ends of a question as fields of a record. */
export const questionFields = ({
  from,
  to,
  wanted,
}: ProbeQuestion): Omit<Question, 'id' | 'rank' | 'expected' | 'why'> => ({
  fromPort: 'port' in from ? from.port : null,
  fromDevice: 'device' in from ? from.device : 'ssid' in from ? from.at : null,
  fromVlan: 'vlan' in from ? from.vlan : null,
  fromTunnel: 'tunnel' in from ? from.tunnel : null,
  fromSsid: 'ssid' in from ? from.ssid : null,
  toDevice: 'device' in to ? to.device : null,
  toVlan: 'vlan' in to ? to.vlan : null,
  toAddress: 'address' in to ? to.address : null,
  toGateway: 'gateway' in to,
  protocol: wanted.protocol,
  port: wanted.port,
});

export function senderTitle(plan: Plan, from: Sender): string {
  if ('port' in from) {
    const port = plan.port.get(from.port);
    return port ? portTitle(plan, port) : 'a port';
  }
  if ('ssid' in from) return airTitle(plan, from);
  if ('device' in from) return plan.device.get(from.device)?.name ?? 'a device';
  if ('tunnel' in from) return plan.tunnel.get(from.tunnel)?.name ?? 'a tunnel';
  return 'vlan' in from ? (plan.vlan.get(from.vlan)?.name ?? 'a segment') : 'the Internet';
}

export function questionText(plan: Plan, question: Question): string {
  const { from, to, wanted } = askedBy(question);
  return `${senderTitle(plan, from)} to ${nameOfReceiver(plan, to)}, ${wantedText(wanted)}`;
}

/** A kept question asked of a plan. */
export interface Asking {
  readonly question: Question;
  readonly answer: Answer;
  readonly asExpected: boolean;
}

/** Asks every kept question of a plan: the acceptance list as it stands. */
export const askAll = (plan: Plan, today: string | null): Asking[] =>
  questionsOf(plan).map(({ id }) => askedOn(plan, `${id} ${today ?? ''}`));

const askedOn = deriveBy((plan, key: string): Asking => {
  const [id, today] = key.split(' ') as [string, string];
  return askOne(plan, plan.question.get(id)!, today || null);
});

export function askOne(plan: Plan, question: Question, today: string | null): Asking {
  const answer = probe(plan, askedBy(question), today);
  return { question, answer, asExpected: answer.works === (question.expected === 'delivered') };
}
