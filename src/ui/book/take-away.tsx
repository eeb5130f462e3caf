'use client';

import { useState } from 'react';
import { routes } from '@/contract';
import type { Chapter } from '@/core/book';
import type { Progress } from '@/core/plan';
import { OneOf } from '../parts/one-of';
import { ProgressLine } from '../parts/progress-line';
import { saveFile } from '../parts/save-file';
import { Toggle } from '../parts/tick';
import { askFile } from '../session/api';

const papers = [
  { value: 'a4' as const, shown: 'A4' },
  { value: 'letter' as const, shown: 'Letter' },
];

/** Which chapters there are to be, and the PDF with them. */
export function TakeAway({
  siteId,
  chapters,
  leftOut,
  onLeaveOut,
}: {
  siteId: string;
  chapters: readonly Chapter[];
  leftOut: ReadonlySet<string>;
  onLeaveOut: (leftOut: ReadonlySet<string>) => void;
}) {
  const [paper, setPaper] = useState<'a4' | 'letter'>('a4');
  const [setting, setSetting] = useState<Progress | null>(null);
  const [problem, setProblem] = useState('');
  const none = chapters.every(({ id }) => leftOut.has(id));
  const download = async () => {
    setProblem('');
    setSetting({ done: 0, of: 0 });
    try {
      const without = [...leftOut].join(',');
      const query = { paper, ...(without && { without }) };
      const file = await askFile(routes.files.book, { site: siteId, query, hear: setSetting });
      saveFile(file, file.name);
    } catch (error) {
      setProblem(`${(error as Error).message} Try again.`);
    } finally {
      setSetting(null);
    }
  };
  return (
    <div role="group" aria-label="What the book holds" className="no-print border-b border-rule py-2">
      <div className="grid grid-cols-3 max-[699px]:grid-cols-1">
        {chapters.map(({ id, title }) => (
          <Toggle
            key={id}
            label={title}
            checked={!leftOut.has(id)}
            onChange={(kept) => {
              const next = new Set(leftOut);
              if (kept) next.delete(id);
              else next.add(id);
              onLeaveOut(next);
            }}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-center gap-3 pt-2">
        <OneOf label="Paper" look="bar" value={paper} of={papers} onChoose={setPaper} />
        <button
          type="button"
          className="button button-primary"
          disabled={setting !== null || none}
          onClick={() => void download()}
        >
          Download PDF
        </button>
        {setting && <ProgressLine label="Chapters set" progress={setting} />}
        {none && <span>Every chapter is left out; choose at least one.</span>}
      </div>
      {problem && (
        <p role="alert" className="mt-2 border-l-4 border-stop px-3">
          {problem}
        </p>
      )}
    </div>
  );
}
