import { today } from '@/today';
import { z } from 'zod';
import type { Plan } from '@/core/plan';
import {
  askAll,
  questionText,
  faultTitle,
  type Answer,
  probe,
  singleFaults,
  typedReceiver,
  typedSender,
  typedWanted,
  typedFault,
  whatIf,
} from '@/core/rehearse';
import { handle, json, readBody } from '../../../_lib/handle';
import { type SiteParams, currentPlan } from '../../../_lib/plans';
import { inSlices } from '../../../_lib/slices';

const typed = z.string().max(200);
const body = z.union([
  z.strictObject({ ask: z.strictObject({ from: typed, to: typed, service: typed }) }),
  z.strictObject({ questions: z.literal(true) }),
  z.strictObject({
    faults: z
      .array(
        z.strictObject({
          kind: z.enum(['cable', 'box', 'uplink', 'taken', 'plug']),
          what: typed,
          to: typed.default(''),
        }),
      )
      .min(1)
      .max(50),
  }),
  z.strictObject({ singleFaults: z.literal(true) }),
]);

const answerOf = ({ delivered, summary, forth, back }: Answer) => ({ delivered, summary, forth, back });
const names = (list: readonly { readonly name: string }[]) => list.map(({ name }) => name);

/** The rehearsal without a browser: the same core, asked in the words that are typed on the page. */
export const POST = handle<SiteParams>(async (request, { site }) => {
  const input = await readBody(request, body);
  const { plan, revision } = await currentPlan(site);
  if ('ask' in input) {
    const { from, to, service } = input.ask;
    const question = {
      from: typedSender(plan, from),
      to: typedReceiver(plan, to),
      wanted: typedWanted(plan, service),
    };
    return json({ revision, answer: answerOf(probe(plan, question, today())) });
  }
  if ('questions' in input)
    return json({
      revision,
      questions: askAll(plan, today()).map(({ question, answer, asExpected }) => ({
        question: questionText(plan, question),
        expected: question.expected,
        asExpected,
        ...answerOf(answer),
      })),
    });
  if ('faults' in input) return json({ revision, impact: impactOf(plan, input.faults) });
  const ranked = await inSlices(singleFaults(plan, today()));
  return json({
    revision,
    ranked: ranked.map(({ fault, ...rest }) => ({ fault: faultTitle(plan, fault), ...rest })),
  });
});

type Typed = Extract<z.output<typeof body>, { faults: unknown }>['faults'];

function impactOf(plan: Plan, faults: Typed) {
  const tried = faults.map(({ kind, what, to }) => typedFault(plan, kind, what, to));
  const { cutOff, joined, rerouted, answers, lost, roots, intruders } = whatIf(plan, tried, today());
  return {
    faults: tried.map((fault) => faultTitle(plan, fault)),
    cutOff: names(cutOff),
    joined: names(joined),
    rerouted: names(rerouted),
    answers: answers.map(({ question, before, after }) => ({
      question: questionText(plan, question),
      before: before.summary,
      after: after.summary,
    })),
    lost,
    roots,
    intruders: intruders.map(({ device, reach }) => ({
      device: device.name,
      inside: reach.inside.map(({ vlan, devices }) => ({ vid: vlan.vid, name: vlan.name, devices })),
      beyond: reach.beyond.map(({ zone, from, what }) => ({ zone: zone.name, from: from.name, what })),
    })),
  };
}
