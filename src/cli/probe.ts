import {
  type PacketStep,
  type ProbeQuestion,
  probe as ask,
  questionsOf,
  askedBy,
  nameOfReceiver,
  senderTitle,
  typedReceiver,
  typedSender,
  typedWanted,
} from '../core/rehearse';
import { wantedText } from '../core/model/policy';
import type { Plan } from '../core/plan';
import type { Command } from './command';
import { Misuse, planIn } from './files';

const titleOf = (plan: Plan, { from, to, wanted }: ProbeQuestion): string =>
  `${senderTitle(plan, from)} to ${nameOfReceiver(plan, to)}, ${wantedText(wanted)}`;

/** Whether something gets through and why not, as the probe says it; or every question that is kept with the plan. */
export const probe: Command = {
  usage: 'PLAN FROM TO [FOR] | PLAN --questions',
  about: 'says whether it gets through, and why not; with --questions asks those kept in the plan',
  takes: { questions: '' },
  run: ({ words: [path, from, to, service = 'ping'], switches, today }) => {
    const plan = planIn(path);
    if (switches.has('questions')) {
      const all = questionsOf(plan).map((question) => {
        const { delivered, summary } = ask(plan, askedBy(question), today);
        const asExpected = delivered === (question.expected === 'delivered');
        return {
          question: titleOf(plan, askedBy(question)),
          expected: question.expected,
          delivered,
          asExpected,
          summary,
        };
      });
      const wrong = all.filter(({ asExpected }) => !asExpected);
      return {
        code: wrong.length > 0 ? 1 : 0,
        text: [
          ...all.map(
            ({ question, asExpected, summary }) =>
              `${asExpected ? 'as expected' : 'DIFFERS    '}  ${question}: ${summary}`,
          ),
          `${all.length} questions, ${wrong.length} answered otherwise than expected`,
        ].join('\n'),
        json: { questions: all },
      };
    }
    if (from === undefined || to === undefined)
      throw new Misuse(
        'Name two ends: a port, a device, an address, a segment, internet. Quote those of several words.',
      );
    const question = {
      from: typedSender(plan, from),
      to: typedReceiver(plan, to),
      wanted: typedWanted(plan, service),
    };
    const { delivered, summary, forth, back } = ask(plan, question, today);
    const told = ({ what, decision, result }: PacketStep) => ({ what, decision, result });
    return {
      code: delivered ? 0 : 1,
      text: [
        `${titleOf(plan, question)}: ${delivered ? 'gets through' : 'does not get through'}`,
        summary,
        ...forth.map(({ what, decision }) => `  → ${what}: ${decision}`),
        ...back.map(({ what, decision }) => `  ← ${what}: ${decision}`),
      ].join('\n'),
      json: {
        question: titleOf(plan, question),
        delivered,
        summary,
        forth: forth.map(told),
        back: back.map(told),
      },
    };
  },
};
