import { type Plan, type Remedy, rankBetween, withRecord } from '../plan';
import { rulesOf } from '../model/policy';
import { type Answer, probe } from './probe';
import type { ProbeQuestion, Receiver, Sender } from './question';

/** What only is tried is no record of the plan. */
const TRIED = 'tried';

/** Who is meant, as a rule names them; anybody where that is no device and no segment. */
const partiesOf = (end: Sender | Receiver) =>
  'device' in end ? [{ device: end.device }] : 'vlan' in end ? [{ vlan: end.vlan }] : [];

/** Does it get through with a rule on top for it? Nothing listens there, perhaps, or a cable is missing further on. */
function helps(plan: Plan, question: ProbeQuestion, today: string | null): boolean {
  const { from, to } = question;
  const opened = withRecord(plan, 'rule', TRIED, {
    id: TRIED,
    rank: rankBetween(null, rulesOf(plan)[0]?.rank ?? null),
    action: 'allow',
    from: partiesOf(from),
    to: partiesOf(to),
    services: [],
    log: false,
    enabled: true,
    until: null,
    device: null,
    note: '',
  });
  return probe(opened, question, today).works !== false;
}

/** The remedies of a stopped probe that do not open one door before another that is shut. */
export const helpfulRemedies = (
  plan: Plan,
  question: ProbeQuestion,
  { remedies }: Answer,
  today: string | null,
): Remedy[] => remedies.filter(({ operation }) => operation !== 'letThrough' || helps(plan, question, today));
