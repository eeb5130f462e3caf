import type { BodyOf, routes } from '../contract';
import type { Plan } from '../core/plan';
import {
  type Answer,
  askAll,
  faultTitle,
  probe,
  questionText,
  singleFaults,
  typedFault,
  typedReceiver,
  typedSender,
  typedWanted,
  whatIf,
} from '../core/rehearse';
import { type Progress, finish } from '../core/plan';
import { today } from '../today';

export type RehearseInput = BodyOf<typeof routes.rehearsal.rehearse>;

const answerOf = ({ delivered, summary, forth, back }: Answer) => ({ delivered, summary, forth, back });
const names = (list: readonly { readonly name: string }[]) => list.map(({ name }) => name);

/** What the rehearsal says to what is asked in the words that are typed on the page. */
export function rehearsed(plan: Plan, input: RehearseInput, hear?: (progress: Progress) => void) {
  if ('ask' in input) {
    const { from, to, service } = input.ask;
    const question = {
      from: typedSender(plan, from),
      to: typedReceiver(plan, to),
      wanted: typedWanted(plan, service),
    };
    return { answer: answerOf(probe(plan, question, today())) };
  }
  if ('questions' in input)
    return {
      questions: askAll(plan, today()).map(({ question, answer, asExpected }) => ({
        question: questionText(plan, question),
        expected: question.expected,
        asExpected,
        ...answerOf(answer),
      })),
    };
  if ('faults' in input) return { impact: impactOf(plan, input.faults) };
  const ranked = finish(singleFaults(plan, today()), hear);
  return { ranked: ranked.map(({ fault, ...rest }) => ({ fault: faultTitle(plan, fault), ...rest })) };
}
export type Rehearsed = ReturnType<typeof rehearsed> & { readonly revision: number };

type Typed = Extract<RehearseInput, { faults: unknown }>['faults'];

function impactOf(plan: Plan, faults: Typed) {
  const tried = faults.map(({ kind, what, to = '' }) => typedFault(plan, kind, what, to));
  const { cutOff, joined, rerouted, answers, lost, roots, intruders, air } = whatIf(plan, tried, today());
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
    networks: air.map(({ ssid, at, everywhere }) => ({ name: ssid.name, lostAt: names(at), everywhere })),
    roots,
    intruders: intruders.map(({ device, reach }) => ({
      device: device.name,
      inside: reach.inside.map(({ vlan, devices }) => ({ vid: vlan.vid, name: vlan.name, devices })),
      beyond: reach.beyond.map(({ zone, from, what }) => ({ zone: zone.name, from: from.name, what })),
    })),
  };
}
