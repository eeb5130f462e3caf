'use client';

import { useState } from 'react';
import type { Book } from '@/core/book';
import { ProgressLine } from '../parts/progress-line';
import { Paper } from '../schedule/paper';
import type { SheetProps } from '../schedule/sheet';
import { siteOf } from '@/core/plan';
import { BlockView, Jackets } from './blocks';
import { TakeAway } from './take-away';
import { useBook } from './use-book';

/** The book on a page: to look at, to print, and to take away as a PDF with the chapters that are chosen. */
export function BookPage(sheet: SheetProps) {
  const written = useBook(sheet);
  const { siteId, plan, revision, today } = sheet;
  return (
    <Paper siteId={siteId} title={siteOf(plan).name} revision={revision} today={today}>
      {written === null || 'writing' in written ? (
        <p className="py-4" aria-busy>
          Writing the book {written && <ProgressLine label="Chapters written" progress={written.writing} />}
        </p>
      ) : 'problem' in written ? (
        <p role="alert" className="py-4">
          {written.problem} Load the page again.
        </p>
      ) : (
        <Chapters siteId={siteId} book={written.book} />
      )}
    </Paper>
  );
}

function Chapters({ siteId, book }: { siteId: string; book: Book }) {
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set());
  const shown = book.chapters.filter(({ id }) => !leftOut.has(id));
  return (
    <>
      <TakeAway siteId={siteId} chapters={book.chapters} leftOut={leftOut} onLeaveOut={setLeftOut} />
      <p className="pt-3">
        The network of this site. {book.state}
        {book.signed.length > 0 && `; signed by ${book.signed.join('; ')}`}.
      </p>
      <Jackets of={book.segments} />
      <nav aria-label="Contents" className="pt-3">
        <ol className="columns-2 gap-6 max-[699px]:columns-1">
          {shown.map(({ id, title }) => (
            <li key={id}>
              <a href={`#${id}`} className="inline-block min-h-7 underline">
                {title}
              </a>
            </li>
          ))}
        </ol>
      </nav>
      {shown.map(({ id, title, blocks }) => (
        <section key={id} id={id} aria-labelledby={`${id}-title`} className="pt-6">
          <h2 id={`${id}-title`} className="break-after-avoid border-b-2 border-ink text-[20px] font-bold">
            {title}
          </h2>
          {blocks.map((block, i) => (
            <BlockView key={i} block={block} />
          ))}
        </section>
      ))}
    </>
  );
}
