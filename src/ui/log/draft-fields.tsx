'use client';

import { TakePhotos } from './photos';

/** What somebody wants to say besides that it is done. */
export interface Draft {
  readonly note: string;
  readonly reading: string;
  readonly photos: readonly string[];
}
export const NO_DRAFT: Draft = { note: '', reading: '', photos: [] };

export function DraftFields({
  label,
  draft,
  onDraft,
  focus = false,
}: {
  label: string;
  draft: Draft;
  onDraft: (draft: Draft) => void;
  focus?: boolean;
}) {
  return (
    <div className="flex flex-col gap-3 pt-1">
      <label>
        {label}
        <textarea
          // Whoever asked for it writes next.
          autoFocus={focus}
          className="field field-line min-h-16"
          maxLength={2000}
          value={draft.note}
          onChange={(event) => onDraft({ ...draft, note: event.target.value })}
        />
      </label>
      <label>
        Reading
        <input
          className="field field-line mono min-h-touch"
          maxLength={200}
          placeholder="what an instrument or a page shows"
          value={draft.reading}
          onChange={(event) => onDraft({ ...draft, reading: event.target.value })}
        />
      </label>
      <TakePhotos taken={draft.photos} onTaken={(photos) => onDraft({ ...draft, photos })} />
    </div>
  );
}
