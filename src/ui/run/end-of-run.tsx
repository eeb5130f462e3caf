'use client';

import { useState } from 'react';
import type { Run } from '@/core/log';
import { useRecordPlanned } from '../session/record-planned';
import { isPaired } from '../session/paired';
import { Problem } from '../parts/problem';
import { useAdapterNote } from './adapter-note';
import { Card } from './card';

/** Nothing is left to do: what stays open is said once more, and the run is ended. */
export function EndOfRun({
  run,
  recorded,
  finished,
  onEnd,
}: {
  run: Run;
  recorded: readonly string[];
  /** The boxes that are as planned now, while the plan says that they are as they come. */
  finished: readonly string[];
  onEnd: (note: string) => void;
}) {
  const [note, setNote] = useState('');
  const adapter = useAdapterNote((state) => state.text);
  const { record, problem } = useRecordPlanned();
  const out = run.results.flatMap(({ body }) =>
    body.kind === 'result' && body.outcome === 'skipped' ? [body.does] : [],
  );
  return (
    <Card title="Nothing is left to set." name={run.begun.body.name}>
      {out.length > 0 && (
        <div>
          <p>Left out:</p>
          <ul className="list-disc pl-5">
            {out.map((does, at) => (
              <li key={at}>{does}</li>
            ))}
          </ul>
        </div>
      )}
      {recorded.length > 0 && (
        <p className="text-stop">{recorded.join(', ')} stays open for you. Close it when you are through.</p>
      )}
      <ul className="list-disc pl-5">
        <li>Renew leases, or bounce the links of devices that changed their segment.</li>
        <li>
          Put back what your adapter had set{adapter === '' ? '' : `: ${adapter}`}, and switch wireless on
          again.
        </li>
      </ul>
      {run.ended && finished.length > 0 && isPaired() && <p>Record the boxes as planned at the laptop.</p>}
      {run.ended && finished.length > 0 && !isPaired() && (
        <button
          type="button"
          className="button min-h-12 justify-center"
          onClick={() => void record(finished)}
        >
          Record {finished.length === 1 ? 'the box' : `${finished.length} boxes`} as planned
        </button>
      )}
      <Problem text={problem} />
      {!run.ended && (
        <form
          className="flex flex-col gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            onEnd(note.trim());
          }}
        >
          <label>
            Note
            <textarea
              className="field field-line min-h-16"
              maxLength={2000}
              value={note}
              onChange={(event) => setNote(event.target.value)}
            />
          </label>
          <button type="submit" className="button button-primary min-h-14 w-full justify-center text-[18px]">
            End the run
          </button>
        </form>
      )}
    </Card>
  );
}
