'use client';

import type { RecordTable } from './record-table';

/** What is typed here is looked for in every column; beside it how many are left. */
export function FilterLine<R>({
  records: { filter, setFilter, shown },
  words,
  of,
  placeholder,
}: {
  records: RecordTable<R>;
  /** What the records are called: `segments`. */
  words: string;
  of: number;
  placeholder: string;
}) {
  return (
    <>
      {of > 0 && (
        <input
          type="search"
          className="field field-line max-w-44"
          aria-label={`Filter the ${words}`}
          placeholder={placeholder}
          value={filter}
          onChange={(event) => setFilter(event.target.value)}
        />
      )}
      {shown.length !== of && (
        <span role="status" className="text-[14px] text-muted">
          {shown.length} of {of}
        </span>
      )}
    </>
  );
}
