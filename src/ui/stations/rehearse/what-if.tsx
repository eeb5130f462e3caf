'use client';

import { useMemo } from 'react';
import { useWatch } from 'react-hook-form';
import type { Plan } from '@/core/plan';
import { questionText, type Fault, faultKey, faultNames, typedFault, type Impact } from '@/core/rehearse';
import { useJob } from '../../session/job';
import { useTried } from '../../session/tried';
import { SiteMap, faultLook } from '../../map';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { TriedFaults } from '../../parts/tried-faults';
import { SingleFaults } from './single-faults';
import { Stale } from './stale';

type Kind = Fault['kind'];
const kinds: readonly (readonly [Kind, string])[] = [
  ['cable', 'pull the cable'],
  ['box', 'switch off'],
  ['uplink', 'fail the uplink'],
  ['plug', 'move the plug in'],
  ['taken', 'lose to an intruder'],
];

const whatOf: Readonly<Record<Kind, { readonly label: string; readonly example: string }>> = {
  cable: { label: 'at port', example: 'sw-a 7' },
  box: { label: 'box', example: 'sw-b' },
  uplink: { label: 'uplink', example: 'fibre' },
  plug: { label: 'at port', example: 'sw-a 7' },
  taken: { label: 'box or device', example: 'hall-cam-01' },
};

/** Pulls cables, switches off boxes, fails uplinks, moves plugs: what changes for whom. */
export function WhatIf({ plan }: { plan: Plan }) {
  const job = useJob();
  const { faults, set } = useTried(plan);
  const impact = job.result?.kind === 'what-if' ? job.result.impact : null;
  const run = (next: readonly Fault[]) => {
    set(next);
    if (next.length > 0) job.start({ kind: 'what-if', faults: next });
  };
  const form = useTypedForm(
    { kind: 'cable' as Kind, what: '', to: '' },
    ({ kind, what, to }) => {
      const fault = typedFault(plan, kind, what, to);
      if (!faults.some((known) => faultKey(known) === faultKey(fault))) run([...faults, fault]);
    },
    { clear: ['what', 'to'] },
  );
  const kind = useWatch({ control: form.form.control, name: 'kind' });
  const layers = useMemo(() => [faultLook(plan, faults, impact)], [plan, faults, impact]);
  const list = useMemo(() => faultNames(plan, kind), [plan, kind]);
  return (
    <>
      <section aria-label="What if" className="mb-5">
        <Form form={form} label="Add a fault">
          <FormChoice
            name="kind"
            label="what if I"
            width={170}
            options={kinds.map(([value, label]) => ({ value, label }))}
          />
          <FormLine
            mono
            name="what"
            label={whatOf[kind].label}
            placeholder={whatOf[kind].example}
            known={list}
            width={170}
          />
          {kind === 'plug' && (
            <FormLine mono name="to" label="to port" placeholder="sw-a 8" known={list} width={130} />
          )}
          <button type="submit" className="button button-primary">
            Try it
          </button>
        </Form>
        <div className="pb-2">
          <TriedFaults plan={plan} faults={faults} onChange={run} />
        </div>
        {faults.length > 0 && impact && (
          <ImpactView
            plan={plan}
            impact={impact}
            revision={job.revision}
            stale={job.stale}
            onAgain={() => run(faults)}
          />
        )}
        {faults.length > 0 && !impact && !job.running && (
          <button type="button" className="button" onClick={() => run(faults)}>
            Run it again
          </button>
        )}
        {faults.length > 0 && <SiteMap plan={plan} layers={layers} />}
      </section>
      <SingleFaults plan={plan} onTry={(fault) => run([fault])} />
    </>
  );
}

/** Nothing changed, or nothing is there that could: a plan without devices is not one that survives everything. */
function unchanged({ devices, questions, services }: Impact['watched']): string {
  if (devices + questions + services === 0)
    return 'Nothing is recorded here that could be lost. Add devices with their cables, or keep a question, and try it again.';
  const of = (count: number, word: string) =>
    count > 0 ? [`${count} ${word}${count === 1 ? '' : 's'}`] : [];
  const what = [...of(devices, 'device'), ...of(questions, 'question'), ...of(services, 'service')];
  return `Nothing changes for anybody: ${what.join(', ')} looked at.`;
}

/** Where a network is gone, and who is heard instead. */
function airText({ ssid, at, everywhere, instead }: Impact['air'][number]): string {
  const where = everywhere ? 'everywhere' : `at ${at.map(({ name }) => name).join(', ')}`;
  const heard = instead.map(({ at: place, heard: other }) =>
    other ? `where ${place.name} hangs ${other.name} is heard` : `nobody is heard where ${place.name} hangs`,
  );
  return `${ssid.name} ${where}${heard.length > 0 ? ` (${heard.join(', ')})` : ''}`;
}

function ImpactView({
  plan,
  impact,
  revision,
  stale,
  onAgain,
}: {
  plan: Plan;
  impact: Impact;
  revision: number;
  stale: boolean;
  onAgain: () => void;
}) {
  const { cutOff, joined, rerouted, answers, lost, roots, intruders, air } = impact;
  const names = (list: readonly { readonly name: string }[]) => list.map(({ name }) => name).join(', ');
  const lines: readonly (readonly [string, string, string])[] = [
    [`${cutOff.length} cut off`, names(cutOff), cutOff.length > 0 ? 'stop' : ''],
    [`${rerouted.length} by another way`, names(rerouted), ''],
    [`${joined.length} newly in touch`, names(joined), ''],
    [
      `${answers.length} ${answers.length === 1 ? 'answer changes' : 'answers change'}`,
      answers.map(({ question, after }) => `${questionText(plan, question)}: ${after.summary}`).join('; '),
      answers.length > 0 ? 'stop' : '',
    ],
    [
      `${lost.length} ${lost.length === 1 ? 'service' : 'services'} lost`,
      lost.join(', '),
      lost.length > 0 ? 'stop' : '',
    ],
    [
      `${air.length} ${air.length === 1 ? 'network' : 'networks'} off the air`,
      air.map(airText).join('; '),
      air.length > 0 ? 'stop' : '',
    ],
    ...intruders.flatMap(({ device, reach }): [string, string, string][] => [
      [
        `In the hands of who has ${device.name}`,
        reach.inside.length === 0
          ? 'it is on no cable that is recorded'
          : `it sends and reads as anybody in ${reach.inside.map(({ vlan, devices }) => `${vlan.vid} ${vlan.name} (${devices} recorded there)`).join(', ')}`,
        'stop',
      ],
      [
        `Beyond ${device.name}`,
        reach.beyond.length === 0
          ? ''
          : `by what the policy lets pass: ${reach.beyond.map(({ zone, what }) => `${zone.name}: ${what}`).join(' · ')}`,
        'stop',
      ],
    ]),
    [
      `${roots.length} ${roots.length === 1 ? 'tree' : 'trees'} with another root`,
      roots.map(({ tree, before, after }) => `${tree}: ${before || 'none'} → ${after || 'none'}`).join('; '),
      '',
    ],
  ];
  const some = lines.filter(([, detail]) => detail !== '');
  return (
    <div role="status">
      {some.length === 0 ? (
        <p className="text-[16px] font-bold">{unchanged(impact.watched)}</p>
      ) : (
        <dl>
          {some.map(([what, detail, mark]) => (
            <div
              key={what}
              className={`grid grid-cols-[190px_1fr] gap-x-3 border-b border-l-4 border-rule py-1 pl-2 max-[699px]:grid-cols-1 ${mark ? 'border-l-stop' : 'border-l-ink'}`}
            >
              <dt className="font-bold">{what}</dt>
              <dd>{detail}</dd>
            </div>
          ))}
        </dl>
      )}
      <Stale revision={revision} stale={stale} onAgain={onAgain} />
    </div>
  );
}
