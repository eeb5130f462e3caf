'use client';

import { useState } from 'react';
import { type Landed, type SiteTest, landings } from '@/core/commission';
import { type Body, type Of, testWords, writtenAt } from '@/core/log';
import { type Plan, subnetsOf, vlansOf } from '@/core/plan';
import { Choice, type Option } from '../../parts/choice';
import { timeText } from '../../parts/dates';
import { type Draft, DraftFields, NO_DRAFT } from '../../log/draft-fields';
import { Photos } from '../../log/photos';

/** The list of causes stands above all tests. */
export const LIKELY_CAUSES = 'likely-causes';

type Tested = Of<'test'>;

const landedWords: Readonly<Record<Landed, string>> = {
  nowhere: 'no address comes',
  foreign: 'an address of a network that is not planned',
  absent: 'the network is not on the air',
};
/** Where somebody landed, in words; the segment may be gone by now. */
const landedText = (plan: Plan, landed: string): string =>
  (landedWords as Readonly<Record<string, string>>)[landed] ??
  `in ${plan.vlan.get(landed)?.name ?? 'a segment that is no longer planned'}`;

/** By its address somebody knows where they are: it tells most of what may be wrong. */
function LandedChoice({
  plan,
  wireless,
  landed,
  onLanded,
}: {
  plan: Plan;
  wireless: boolean;
  landed: string;
  onLanded: (landed: string) => void;
}) {
  const options: readonly Option[] = [
    { value: '', label: 'not looked up' },
    ...landings
      .filter((value) => wireless || value !== 'absent')
      .map((value) => ({ value, label: landedWords[value] })),
    ...vlansOf(plan)
      .filter(({ id }) => subnetsOf(plan, id).length > 0)
      .map(({ id, name }) => ({ value: id, label: `in ${name}` })),
  ];
  return (
    <label>
      Where do you land?
      <Choice label="Where do you land?" lined value={landed} options={options} onChoose={onLanded} />
    </label>
  );
}

/** A test, what came of it last, and what comes of it now. */
export function TestLine({
  plan,
  test,
  at,
  came,
  onSay,
}: {
  plan: Plan;
  test: SiteTest;
  at: string;
  came: Tested | undefined;
  onSay: (body: Body) => void;
}) {
  const [asking, setAsking] = useState(false);
  const [draft, setDraft] = useState<Draft>(NO_DRAFT);
  const [landed, setLanded] = useState<string>('');
  const { key, trial, does, expects, why, amiss } = test;
  const say = (outcome: Tested['body']['outcome']) => {
    const { note, reading, photos } = draft;
    onSay({
      kind: 'test',
      key,
      at,
      does,
      expects,
      outcome,
      ...(outcome === 'differs' && landed !== '' ? { landed } : {}),
      reading: reading.trim(),
      note: note.trim(),
      photos: [...photos],
    });
    setDraft(NO_DRAFT);
    setAsking(false);
  };
  return (
    <li className="border-b border-rule py-1 text-[14px]">
      <div className="flex flex-wrap items-start gap-x-3">
        <span className="min-w-[220px] flex-1">
          <strong>{does}.</strong> {expects}
          <span className="block text-[13px] text-muted">{why}</span>
          {amiss && (
            <span className="block text-[13px] text-stop">By the plan it comes out otherwise: {amiss}</span>
          )}
          {came && <Came plan={plan} entry={came} />}
        </span>
        <span className="flex shrink-0 items-center gap-2">
          {!asking && (
            <>
              <button
                type="button"
                className="button max-[699px]:min-h-touch"
                aria-label={`As expected: ${does} at ${at}`}
                onClick={() => say('as-expected')}
              >
                as expected
              </button>
              <button
                type="button"
                className="button max-[699px]:min-h-touch"
                aria-label={`Differs: ${does} at ${at}`}
                onClick={() => setAsking(true)}
              >
                differs…
              </button>
            </>
          )}
        </span>
      </div>
      {asking && (
        <form
          aria-label={`What differs: ${does}`}
          className="flex max-w-[560px] flex-col gap-2 py-2"
          onSubmit={(event) => {
            event.preventDefault();
            say('differs');
          }}
        >
          {(trial?.kind === 'lease' || trial?.kind === 'join') && (
            <LandedChoice plan={plan} wireless={trial.kind === 'join'} landed={landed} onLanded={setLanded} />
          )}
          <DraftFields label="What comes of it?" draft={draft} onDraft={setDraft} focus />
          <span className="flex gap-2">
            <button type="submit" className="button button-primary max-[699px]:min-h-touch">
              It differs
            </button>
            <button type="button" className="button max-[699px]:min-h-touch" onClick={() => setAsking(false)}>
              Back
            </button>
          </span>
        </form>
      )}
    </li>
  );
}

/** What came of a test last. */
function Came({ plan, entry }: { plan: Plan; entry: Tested }) {
  const { outcome, landed, note, reading, photos } = entry.body;
  return (
    <span className={`block border-l-4 pl-2 ${outcome === 'differs' ? 'border-stop' : 'border-ink'}`}>
      <strong>{testWords[outcome]}</strong>, {entry.author}, {timeText(writtenAt(entry))}
      {landed && `: ${landedText(plan, landed)}`}
      {(note || reading) && (
        <span className="block">
          {note} <span className="mono">{reading}</span>
        </span>
      )}
      <Photos ids={photos} />
      {outcome === 'differs' && (
        <button
          type="button"
          className="link block max-[699px]:min-h-touch"
          onClick={() => document.getElementById(LIKELY_CAUSES)?.scrollIntoView({ block: 'start' })}
        >
          What would explain it
        </button>
      )}
    </span>
  );
}
