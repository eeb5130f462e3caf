import type { Plan } from '../plan';
import { type Answer, probe, typedReceiver, typedSender, typedWanted } from '../rehearse';

/** What the probe says to a question as people type it. */
export const ask = (plan: Plan, from: string, to: string, service: string): Answer =>
  probe(
    plan,
    { from: typedSender(plan, from), to: typedReceiver(plan, to), wanted: typedWanted(plan, service) },
    '2026-05-04',
  );

/** Each step of the question and of its answer. */
export function steps(plan: Plan, from: string, to: string, service: string): string[] {
  const { forth, back } = ask(plan, from, to, service);
  return [...forth, ...back].map(({ what, decision }) => `${what}: ${decision}`);
}
