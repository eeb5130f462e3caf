'use client';

import { type FormEvent, useState } from 'react';
import {
  type Outcome,
  type SheetSeat,
  type SheetStep,
  type WireSetting,
  socketTitle,
} from '@/core/commission';
import { type Body, type Run, writtenAt } from '@/core/log';
import type { Plan } from '@/core/plan';
import { timeText } from '../parts/dates';
import { Fold } from '../parts/fold';
import { Toggle } from '../parts/tick';
import { Card } from './card';
import { type Draft, DraftFields, NO_DRAFT } from '../log/draft-fields';
import { PortPicture } from '../parts/port-picture';
import { WayBack } from '../parts/way-back';
import { WayInto } from '../parts/way-in';
import { PagesToSet } from './pages-to-set';

interface Props {
  readonly plan: Plan;
  readonly run: Run;
  readonly seat: SheetSeat;
  readonly step: SheetStep;
  /** What it sets, one by one. */
  readonly settings: readonly WireSetting[];
  /** What was typed and taken for it so far. */
  readonly draft: Draft;
  readonly onDraft: (draft: Draft) => void;
  readonly busy: boolean;
  readonly onSay: (body: Body) => string;
}

/** One step: what to do, what must be seen, and what became of it. */
export function StepCard({ plan, run, seat, step, settings, draft, onDraft, busy, onSay }: Props) {
  const [asking, setAsking] = useState<'differs' | 'skipped' | null>(null);
  const [defect, setDefect] = useState(true);
  const { device, does, sees, ports } = step;
  const { name } = plan.device.get(device)!;
  const say = (outcome: Outcome) => {
    const text = draft.note.trim();
    const { photos } = draft;
    onSay({
      kind: 'result',
      run: run.id,
      steps: [...settings],
      does: `${name}: ${does}`,
      outcome,
      reading: draft.reading.trim(),
      note: text,
      photos: [...photos],
    });
    if (outcome === 'differs' && defect)
      onSay({
        kind: 'defect',
        text: `${does}: ${text}`,
        about: ports.length === 1 ? { table: 'port', id: ports[0]! } : { table: 'device', id: device },
        run: run.id,
        photos: [...photos],
      });
    onDraft(NO_DRAFT);
    setAsking(null);
  };
  const before = run.results.findLast(
    ({ body }) => body.kind === 'result' && body.outcome === 'differs' && body.does === `${name}: ${does}`,
  );
  const at = seat.socket === null ? `console of ${name}` : socketTitle(plan, seat.socket);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (asking && (asking === 'skipped' || draft.note.trim() !== '')) say(asking);
  };
  return (
    <Card title="At" name={name}>
      <p className="text-[13px] text-muted">
        you sit at <span className="mono">{at}</span>
        {seat.laptop && (
          <>
            , laptop <span className="mono">{seat.laptop.split(' ').join(' / ')}</span>
          </>
        )}
      </p>
      <PortPicture plan={plan} device={device} marked={ports} seat={seat.socket} />
      <p className="text-[19px] leading-snug font-bold">{does}</p>
      <p>
        <span className="text-muted">Must be seen: </span>
        {sees}
      </p>
      {step.kind === 'pages' && <PagesToSet plan={plan} run={run.id} device={device} settings={settings} />}
      {step.back !== '' && <WayBack step={step} alone />}
      {(seat.socket === null || step.kind === 'check') && <WayInto plan={plan} device={device} />}
      {before?.body.kind === 'result' && (
        <p role="note" className="border-l-4 border-stop bg-sheet px-2">
          {before.author} saw something else, {timeText(writtenAt(before))}: {before.body.note}
        </p>
      )}
      {asking === null && (
        <>
          <button
            type="button"
            className="button button-primary min-h-14 w-full justify-center text-[18px]"
            disabled={busy}
            onClick={() => say('done')}
          >
            Done and seen
          </button>
          <div className="grid grid-cols-2 gap-3">
            <button
              type="button"
              className="button min-h-12 justify-center"
              disabled={busy}
              onClick={() => setAsking('differs')}
            >
              It differs
            </button>
            <button
              type="button"
              className="button min-h-12 justify-center"
              disabled={busy}
              onClick={() => setAsking('skipped')}
            >
              Leave it out
            </button>
          </div>
          <Fold id="run-more" title="Note, reading, photo" told="what you measured or want to keep">
            <DraftFields draft={draft} onDraft={onDraft} label="Note" />
          </Fold>
        </>
      )}
      {asking !== null && (
        <form className="flex flex-col gap-3" onSubmit={submit}>
          <DraftFields
            draft={draft}
            onDraft={onDraft}
            label={asking === 'differs' ? 'What do you see?' : 'Why is it left out?'}
            focus
          />
          {asking === 'differs' && (
            <Toggle label="keep it as an open defect" checked={defect} onChange={setDefect} />
          )}
          {asking === 'skipped' && (
            <p className="text-[14px]">The rest is worked out without it, so that nobody is cut off.</p>
          )}
          <div className="grid grid-cols-2 gap-3">
            <button
              type="submit"
              className="button button-primary min-h-12 justify-center"
              disabled={busy || (asking === 'differs' && draft.note.trim() === '')}
            >
              {asking === 'differs' ? 'Write it down' : 'Leave it out'}
            </button>
            <button type="button" className="button min-h-12 justify-center" onClick={() => setAsking(null)}>
              Back
            </button>
          </div>
        </form>
      )}
    </Card>
  );
}
