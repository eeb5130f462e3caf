'use client';

import { useState } from 'react';
import { today } from '@/today';
import { type Plan, badInput } from '@/core/plan';
import {
  enforcement,
  forwardText,
  forwardsInto,
  serviceNames,
  typedServices,
  passing,
  ruleText,
} from '@/core/model/policy';
import { pairOf } from '@/core/rehearse';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { Problem } from '../../parts/problem';
import { Gate, decisionWords } from './gate';
import { useServiceNames } from './party-names';

const filterWords = {
  stateful: 'knows what belongs together, so answers come back by themselves',
  stateless: 'filters each packet by itself, so answers need a line of their own',
  none: 'has no filter, so everything passes',
} as const;

/** What passes between chosen zones, why, who sees to it, and deciding it. */
export function PairInspector({
  plan,
  pairs,
}: {
  plan: Plan;
  pairs: readonly { readonly from: string; readonly to: string }[];
}) {
  const session = useSession();
  const [from, to] = [plan.zone.get(pairs[0]!.from)!, plan.zone.get(pairs[0]!.to)!];
  const found = passing(plan, from, to);
  const forwards = forwardsInto(plan, from, to);
  const form = useTypedForm(
    { services: found.decision === 'services' ? serviceNames(plan, found.services) : '' },
    ({ services: typed }) => {
      const services = typedServices(plan, typed);
      if (services.length === 0)
        throw badInput('No service is named; write one like HTTPS, or allow everything.', 'services');
      session.perform({ operation: 'decidePairs', input: { pairs, decision: 'services', services } });
    },
  );
  const known = useServiceNames(plan);
  const [problem, setProblem] = useState('');
  const whole = pairs.length === 1 ? pairOf(plan, from, to, today()) : null;
  const differs = whole?.differences ?? [];
  const { boxes, filter } = enforcement(plan, from, to);
  const decide = (decision: 'allow' | 'deny' | 'services' | 'usual', services: readonly string[] = []) =>
    setProblem(
      problemOf(() => session.perform({ operation: 'decidePairs', input: { pairs, decision, services } })),
    );
  return (
    <section aria-label="Chosen cells" className="pb-4">
      <h2 className="font-bold">
        {pairs.length === 1 ? `${from.name} to ${to.name}` : `${pairs.length} pairs of zones`}
      </h2>
      {pairs.length === 1 && (
        <>
          <p className="flex items-center gap-2 py-1">
            <Gate decision={found.decision} />
            {found.decision === 'services'
              ? `only ${serviceNames(plan, found.services)}`
              : `${decisionWords[found.decision]}${found.decision === 'deny' && forwards.length > 0 ? ' but what a forward lets in' : ''}`}
          </p>
          <p className="text-[14px] text-muted">{found.why}</p>
          <p className="my-2 border-l-4 border-ink pl-2 text-[14px]">
            {filter === null
              ? 'Nobody routes between the two: nothing passes, whatever is decided.'
              : from === to
                ? 'Within a segment nothing passes a router; only what joins several segments of the zone is filtered.'
                : `Seen to by ${boxes.map(({ name }) => name).join(' and ')}, which ${filterWords[filter]}.`}
          </p>
        </>
      )}
      {whole && whole.rules.length > 0 && (
        <ul aria-label="Rules above" className="pb-2 text-[14px]">
          {whole.rules.map(({ rule }) => (
            <li key={rule.id} className="border-l-4 border-note pl-2">
              <b>Above it: </b>
              {ruleText(plan, rule)}
            </li>
          ))}
        </ul>
      )}
      {pairs.length === 1 && forwards.length > 0 && (
        <ul aria-label="Forwards" className="pb-2 text-[14px]">
          {forwards.map((forward) => (
            <li key={forward.id} className="border-l-4 border-fix pl-2">
              <b>Let in by a forward: </b>
              {forwardText(plan, forward)}
            </li>
          ))}
        </ul>
      )}
      {differs.length > 0 && (
        <ul aria-label="Rehearsed" className="pb-2 text-[14px]">
          {differs.map(({ kind, why, cause }) => (
            <li key={kind + cause} className="border-l-4 border-stop pl-2">
              <b>{kind === 'excess' ? 'More passes: ' : 'Does not work: '}</b>
              {why}
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap gap-2 py-1">
        <button type="button" className="button" onClick={() => decide('allow')}>
          Allow <span className="key">a</span>
        </button>
        <button type="button" className="button" onClick={() => decide('deny')}>
          Deny <span className="key">d</span>
        </button>
        <button type="button" className="button" onClick={() => decide('usual')}>
          As usual <span className="key">r</span>
        </button>
      </div>
      <Form form={form}>
        <FormLine
          id="pair-services"
          name="services"
          label="Only these services (s)"
          placeholder="HTTPS, ping"
          known={known}
        />
        <button type="submit" className="button">
          Set
        </button>
      </Form>
      <Problem text={problem} className="text-[14px]" />
    </section>
  );
}
