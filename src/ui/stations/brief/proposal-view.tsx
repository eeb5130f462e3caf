'use client';

import { useEffect, useState } from 'react';
import type { Part, PartSheet, ProposalSheet } from '@/core/brief';
import type { Plan, WireStep } from '@/core/plan';
import { routes } from '@/contract';
import { ask } from '../../session/api';
import { isTold, problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { useJob } from '../../session/job';
import type { SiteSession } from '../../session/session';
import { useView } from '../../session/view';
import { Fold } from '../../parts/fold';
import { Problem } from '../../parts/problem';
import { ProgressLine } from '../../parts/progress-line';
import { Toggle } from '../../parts/tick';
import { Alternatives } from './alternatives';

const partWords: Readonly<Record<Part, string>> = {
  segments: 'Segments and pools',
  boxes: 'Boxes and their ports',
  things: 'What is connected',
  addresses: 'Addresses',
  cables: 'Cables and roots',
  wireless: 'Wireless',
  internet: 'Internet side',
  policy: 'Who may talk',
  guards: 'Guards',
  questions: 'Questions to keep',
};

/** What was accepted earlier, as the server has it: what somebody has set since is theirs. */
async function acceptedOf(session: SiteSession): Promise<readonly WireStep[]> {
  await session.settled();
  const { steps } = await ask(routes.journal.accepted, { site: session.siteId });
  return steps as readonly WireStep[];
}

/** The first plan worked out from the brief, beside what it could be otherwise, and taken whole or in part. */
export function ProposalView({ plan }: { plan: Plan }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const proposals = useJob();
  const weaknesses = useJob();
  const [problem, setProblem] = useState('');
  const [chosen, setChosen] = useState('');
  const begin = (accepted: readonly WireStep[]) => {
    setProblem('');
    proposals.start({ kind: 'proposals', accepted });
  };
  const refuse = (error: Error) => {
    if (!isTold(error)) throw error;
    setProblem(`The proposal cannot be worked out now: ${error.message}`);
  };
  const isEmpty = plan.need.size === 0;
  useEffect(() => {
    let wanted = true;
    if (!isEmpty)
      acceptedOf(session).then(
        (steps) => wanted && begin(steps),
        (error: Error) => wanted && refuse(error),
      );
    return () => void (wanted = false);
    // By itself only once; after a change somebody asks for it.
  }, [isEmpty]); // eslint-disable-line react-hooks/exhaustive-deps
  const result = proposals.result?.kind === 'proposals' ? proposals.result.sheets : null;
  const sheets = result && 'why' in result ? null : result;
  const { start: rehearse } = weaknesses;
  const of = proposals.stale ? null : sheets;
  useEffect(() => {
    if (of) rehearse({ kind: 'weaknesses' });
    // What was proposed is rehearsed once.
  }, [of]); // eslint-disable-line react-hooks/exhaustive-deps
  if (isEmpty)
    return (
      <p>
        Nothing has to be connected yet.{' '}
        <button type="button" className="link" onClick={() => set({ brief: 'brief' })}>
          Write the brief
        </button>{' '}
        first.
      </p>
    );
  const shown = sheets?.find(({ key }) => key === chosen) ?? sheets?.[0];
  return (
    <>
      {proposals.running && (
        <div role="status" className="pb-3">
          Working the plan out. <ProgressLine label="Proposal" progress={proposals.running} />
        </div>
      )}
      <Problem text={problem || proposals.problem} />
      {result && 'why' in result && (
        <Problem text={result.why}>
          <button type="button" className="button" onClick={() => set({ brief: 'brief' })}>
            Back to the brief
          </button>
        </Problem>
      )}
      {proposals.stale && (
        <p className="flex flex-wrap items-center gap-3 pb-3">
          <span className="text-stop">The plan has changed since.</span>
          <button
            type="button"
            className="button button-primary"
            onClick={() => void acceptedOf(session).then(begin, refuse)}
          >
            Work it out again
          </button>
        </p>
      )}
      {sheets && shown && !proposals.stale && (
        <>
          <Alternatives
            sheets={sheets}
            chosen={shown.key}
            weak={weaknesses.result?.kind === 'weaknesses' ? weaknesses.result.byKey : null}
            running={weaknesses.running}
            onChoose={setChosen}
          />
          <Bill key={shown.key} sheet={shown} />
        </>
      )}
    </>
  );
}

const changes = ({ added, changed, removed }: PartSheet): string =>
  [
    added > 0 ? `${added} new` : '',
    changed > 0 ? `${changed} otherwise` : '',
    removed > 0 ? `${removed} no longer needed` : '',
  ]
    .filter(Boolean)
    .join(', ') || 'as it is';
const isSame = ({ added, changed, removed }: PartSheet): boolean => added + changed + removed === 0;

/** The chosen one read like a bill: what, why, and what would differ; each part is taken or left. */
function Bill({ sheet }: { sheet: ProposalSheet }) {
  const session = useSession();
  const [left, setLeft] = useState<ReadonlySet<Part>>(new Set());
  const [problem, setProblem] = useState('');
  const [taking, setTaking] = useState(false);
  const differing = sheet.parts.filter((part) => !isSame(part));
  const taken = differing.filter(({ part }) => !left.has(part)).map(({ part }) => part);
  /** What is taken is worked out where the proposal is, and done here as one change. */
  const take = () => {
    setProblem('');
    setTaking(true);
    const whole = taken.length === differing.length;
    const names = taken.map((part) => partWords[part].toLowerCase()).join(', ');
    const label = whole ? `Proposal accepted: ${sheet.title}` : `Proposal accepted in part: ${names}`;
    const done = (found: string) => {
      setTaking(false);
      setProblem(found);
    };
    session.run(
      { kind: 'acceptance', key: sheet.key, parts: taken },
      {
        onProgress: () => undefined,
        onResult: (result) => {
          if (result.kind !== 'acceptance') return;
          const input = { label, steps: [...result.steps] };
          done(problemOf(() => session.perform({ operation: 'acceptProposal', input })));
        },
        onProblem: done,
        onCalledOff: () => done(''),
      },
    );
  };
  return (
    <section aria-label="Proposal" className="max-w-[980px]">
      <h3 className="border-b-2 border-ink font-bold">{sheet.title}: what is planned, and why</h3>
      {sheet.unmet.map(({ what, why }) => (
        <p key={what} className="border-l-4 border-stop bg-sheet px-2 py-1 text-[14px]">
          <b>{what}</b> cannot be had: {why}.
        </p>
      ))}
      {sheet.assumed.map((what) => (
        <p key={what} className="border-l-4 border-note bg-sheet px-2 py-1 text-[14px]">
          {what}
        </p>
      ))}
      <div className="flex flex-wrap items-center gap-3 py-2">
        <button
          type="button"
          className="button button-primary"
          disabled={taken.length === 0 || taking}
          onClick={take}
        >
          {taken.length === differing.length ? 'Take the whole proposal' : `Take ${taken.length} parts`}
        </button>
        <span role="status" className="text-[14px]">
          {differing.length === 0
            ? 'The plan is what the brief asks for: nothing would differ.'
            : 'One change, taken back by one undo. What you set yourself stays.'}
        </span>
      </div>
      <Problem text={problem} />
      {sheet.parts.map((part) => (
        <PartOfBill
          key={part.part}
          part={part}
          taken={!isSame(part) && !left.has(part.part)}
          onTake={(on) =>
            setLeft(new Set([...left].filter((one) => one !== part.part).concat(on ? [] : part.part)))
          }
        />
      ))}
    </section>
  );
}

/** One part: what is planned and why, and record by record what would differ. */
function PartOfBill({
  part,
  taken,
  onTake,
}: {
  part: PartSheet;
  taken: boolean;
  onTake: (on: boolean) => void;
}) {
  const { decisions, lines, added, changed, removed } = part;
  const name = partWords[part.part];
  const rest = added + changed + removed - lines.length;
  return (
    <section aria-label={name} className="border-t border-ink pb-2">
      <div className="flex flex-wrap items-center gap-x-3 py-1">
        {isSame(part) ? (
          <h4 className="min-h-7 pt-1 pl-7 font-bold">{name}</h4>
        ) : (
          <h4 className="font-bold">
            <Toggle label={name} checked={taken} onChange={onTake} />
          </h4>
        )}
        <span className="text-[14px] text-muted">{changes(part)}</span>
      </div>
      <ul className="pl-7 text-[14px]">
        {decisions.map(({ what, why }, i) => (
          <li
            key={i}
            className="grid grid-cols-[minmax(0,5fr)_minmax(0,7fr)] gap-x-3 border-b border-rule py-0.5 last:border-b-0 max-[699px]:grid-cols-1"
          >
            <b>{what}</b>
            <span className="text-muted">{why}</span>
          </li>
        ))}
      </ul>
      {lines.length > 0 && (
        <div className="pl-7">
          <Fold id={`proposal-${part.part}`} title="Record by record" told={lines.slice(0, 3).join(', ')}>
            <ul className="columns-2 gap-4 text-[13px] max-[999px]:columns-1">
              {lines.map((line, i) => (
                <li key={i}>{line}</li>
              ))}
            </ul>
            {rest > 0 && <p className="text-[13px]">and {rest} more</p>}
          </Fold>
        </div>
      )}
    </section>
  );
}
