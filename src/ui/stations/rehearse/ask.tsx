'use client';

import { useMemo, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { formatAddress } from '@/core/address';
import { type Plan, expectations } from '@/core/plan';
import {
  type Asking,
  askAll,
  askedBy,
  questionFields,
  questionText,
  senderTitle,
  type Answer,
  nameOfReceiver,
  suggestedEnds,
  suggestedServices,
  typedReceiver,
  typedSender,
  typedWanted,
} from '@/core/rehearse';
import { wantedText } from '@/core/model/policy';
import { today } from '@/today';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { Choice } from '../../parts/choice';
import { WorksMark } from '../../parts/works-mark';
import { Remedies } from '../../shell/remedies';
import { SiteMap, answerLook } from '../../map';
import { PacketWay, useAnswer } from '../../shell/probe-bar';

const expectedWords = { delivered: 'gets through', stopped: 'is stopped' } as const;

/** Kept questions with the answers that are expected: the acceptance list, asked again at every change. */
export function Ask({ plan }: { plan: Plan }) {
  const asked = useMemo(() => askAll(plan, today()), [plan]);
  const [chosen, setChosen] = useState<string | null>(null);
  const wrong = asked.filter(({ asExpected }) => !asExpected);
  const shown = asked.find(({ question }) => question.id === chosen) ?? wrong[0] ?? asked[0];
  return (
    <>
      <section aria-label="Kept questions" className="mb-5">
        <h3 className="flex flex-wrap gap-x-3 border-b-2 border-ink font-bold">
          Questions this network has to answer
          <span role="status" className={`font-normal ${wrong.length > 0 ? 'text-stop' : 'text-muted'}`}>
            {asked.length === 0
              ? 'none kept yet'
              : wrong.length === 0
                ? `all ${asked.length} answered as expected`
                : `${wrong.length} of ${asked.length} not as expected`}
          </span>
        </h3>
        {asked.length === 0 && (
          <p className="py-1 text-muted">
            Write who asks whom, by which service, and what should come of it. The list is asked again at
            every change, and at the end it is what you show to be done.
          </p>
        )}
        {asked.length > 0 && (
          <table
            className="schedule schedule-stacked text-[14px]"
            aria-label="Kept questions and their answers"
          >
            <thead>
              <tr>
                <th scope="col" className="w-[36%]">
                  Question
                </th>
                <th scope="col" className="w-[132px]">
                  Expected
                </th>
                <th scope="col">Answer</th>
                <th scope="col">
                  <span className="sr-only">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {asked.map((item) => (
                <Row
                  key={item.question.id}
                  plan={plan}
                  asking={item}
                  here={shown === item}
                  onChoose={() => setChosen(item.question.id)}
                />
              ))}
            </tbody>
          </table>
        )}
        <Keep plan={plan} />
      </section>
      <Probed plan={plan} />
      {shown && (
        <Answered
          plan={plan}
          label="The way of the answer"
          title={questionText(plan, shown.question)}
          answer={shown.answer}
          mend={!shown.asExpected}
        />
      )}
    </>
  );
}

function Row({
  plan,
  asking,
  here,
  onChoose,
}: {
  plan: Plan;
  asking: Asking;
  here: boolean;
  onChoose: () => void;
}) {
  const session = useSession();
  const { question, answer, asExpected } = asking;
  const { from, to, wanted } = askedBy(question);
  return (
    <tr className={here ? 'bg-chosen' : ''}>
      <th scope="row" className="text-left font-normal">
        <button
          type="button"
          className="min-h-[26px] max-[699px]:min-h-touch text-left hover:underline"
          aria-pressed={here}
          onClick={onChoose}
        >
          <b>{senderTitle(plan, from)}</b> to <b>{nameOfReceiver(plan, to)}</b>,{' '}
          <span className="mono">{wantedText(wanted)}</span>
        </button>
        {question.why && <span className="block text-[13px] text-muted">{question.why}</span>}
      </th>
      <td>
        <Choice
          label={`Expected of ${questionText(plan, question)}`}
          value={question.expected}
          options={expectations.map((value) => ({ value, label: expectedWords[value] }))}
          onChoose={(expected) =>
            session.perform({
              operation: 'edit',
              input: {
                table: 'question',
                id: question.id,
                set: { expected },
                seen: { expected: question.expected },
              },
            })
          }
        />
      </td>
      <td className={asExpected ? '' : 'border-l-4! border-l-stop!'}>
        <span className="flex items-start gap-1.5">
          <span className="pt-0.5">
            <WorksMark works={asExpected} />
          </span>
          <span className="line-clamp-2">
            {!asExpected && <b>not as expected: </b>}
            {answer.summary}
          </span>
        </span>
      </td>
      <td>
        <button
          type="button"
          className="link"
          aria-label={`Remove the question ${questionText(plan, question)}`}
          onClick={() => session.perform({ operation: 'removeQuestion', input: { question: question.id } })}
        >
          remove
        </button>
      </td>
    </tr>
  );
}

/** Keeps a question; the one in the probe below can be taken over. */
function Keep({ plan }: { plan: Plan }) {
  const session = useSession();
  const probe = useView((state) => state.probe);
  const form = useTypedForm(
    {
      from: '',
      to: '',
      service: 'HTTPS',
      expected: 'delivered' as (typeof expectations)[number],
      why: '',
    },
    ({ from, to, service, expected, why }) => {
      const asked = questionFields({
        from: typedSender(plan, from),
        to: typedReceiver(plan, to),
        wanted: typedWanted(plan, service),
      });
      session.perform({ operation: 'addQuestion', input: { ...wireOf(asked), expected, why } });
    },
    { clear: ['from', 'to', 'why'] },
  );
  const { setValue, control } = form.form;
  const [from, to] = useWatch({ control, name: ['from', 'to'] });
  const ends = {
    from: useMemo(() => suggestedEnds(plan, from), [plan, from]),
    to: useMemo(() => suggestedEnds(plan, to), [plan, to]),
  };
  const services = useMemo(() => suggestedServices(plan), [plan]);
  return (
    <Form form={form} label="Keep a question">
      <FormLine mono name="from" label="from" placeholder="sw-a 7" known={ends.from} width={140} />
      <FormLine mono name="to" label="to" placeholder="internet" known={ends.to} width={140} />
      <FormLine mono name="service" label="for" placeholder="ping" known={services} width={110} />
      <FormChoice
        name="expected"
        label="expected"
        width={120}
        options={expectations.map((value) => ({ value, label: expectedWords[value] }))}
      />
      <FormLine name="why" label="because" width={200} />
      <button type="submit" className="button button-primary">
        Keep
      </button>
      {probe.from && probe.to && (
        <button
          type="button"
          className="button"
          onClick={() => {
            setValue('from', probe.from);
            setValue('to', probe.to);
            setValue('service', probe.service);
          }}
        >
          As in the probe
        </button>
      )}
    </Form>
  );
}

/** As an operation takes it. */
const wireOf = (fields: ReturnType<typeof questionFields>) => ({
  ...fields,
  toAddress: fields.toAddress === null ? null : formatAddress(fields.toAddress),
});

/** What is asked in the probe below, with its way on the map. */
function Probed({ plan }: { plan: Plan }) {
  const text = useView((state) => state.probe);
  const answer = useAnswer(plan, text);
  if (!answer || 'refusal' in answer) return null;
  const title = `Asked in the probe: ${text.from} to ${text.to}, ${text.service}`;
  return <Answered plan={plan} label="The way of the probe" title={title} answer={answer.value} />;
}

/** The way of an answer on the map and hop by hop, there and back. */
function Answered({
  plan,
  label,
  title,
  answer,
  mend = true,
}: {
  plan: Plan;
  label: string;
  title: string;
  answer: Answer;
  /** Not where it is meant to be stopped: nobody is to be let through by a click there. */
  mend?: boolean;
}) {
  const layers = useMemo(() => [answerLook(answer)], [answer]);
  return (
    <section aria-label={label} className="mb-5">
      <h3 className="flex items-center gap-2 font-bold">
        <WorksMark works={answer.works} /> {title}
      </h3>
      <p className="pb-1">{answer.summary}</p>
      {answer.caution !== null && <p className="pb-1 text-muted">{answer.caution}.</p>}
      {mend && answer.remedies.length > 0 && <Remedies remedies={answer.remedies} />}
      <div className="py-2">
        <SiteMap plan={plan} layers={layers} />
      </div>
      <div className="grid gap-x-6 gap-y-2 min-[900px]:grid-cols-2">
        <PacketWay title="Forth" steps={answer.forth} />
        {answer.back.length > 0 && <PacketWay title="And back" steps={answer.back} />}
      </div>
    </section>
  );
}
