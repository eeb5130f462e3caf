'use client';

import { useState } from 'react';
import type { Body } from '@/core/log';
import { type Plan, byName } from '@/core/plan';
import { Choice } from '../parts/choice';
import { type Draft, DraftFields, NO_DRAFT } from './draft-fields';

/** Writes a note or opens a defect, about a box or the whole site. */
export function AddEntry({ plan, onSay }: { plan: Plan; onSay: (body: Body) => void }) {
  const [open, setOpen] = useState(false);
  const [draft, setDraft] = useState<Draft>(NO_DRAFT);
  const [about, setAbout] = useState('');
  const [told, setTold] = useState('');
  const say = (kind: 'note' | 'defect') => {
    const text = draft.note.trim();
    if (text === '') return setTold('What is to be written down is empty; write a few words.');
    const ref = about === '' ? null : { table: 'device' as const, id: about };
    const photos = [...draft.photos];
    const reading = draft.reading.trim();
    if (kind === 'note') onSay({ kind, text, about: ref, reading, photos });
    else onSay({ kind, text: reading ? `${text} · ${reading}` : text, about: ref, run: null, photos });
    setDraft(NO_DRAFT);
    setTold('');
    setOpen(false);
  };
  if (!open)
    return (
      <button type="button" className="button mb-2" onClick={() => setOpen(true)}>
        Write something down
      </button>
    );
  const boxes = [...plan.device.values()].sort((a, b) => byName(a.name, b.name));
  return (
    <form
      aria-label="Write something down"
      className="mb-3 flex max-w-[760px] flex-col gap-2 border-2 border-ink p-3"
      onSubmit={(event) => {
        event.preventDefault();
        say('note');
      }}
    >
      <DraftFields label="What was done, measured or seen?" draft={draft} onDraft={setDraft} focus />
      <label className="flex items-center gap-2">
        About
        <Choice
          lined
          label="About"
          value={about}
          options={[
            { value: '', label: 'the whole site' },
            ...boxes.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChoose={setAbout}
        />
      </label>
      {told && (
        <p role="alert" className="border-l-4 border-stop px-2">
          {told}
        </p>
      )}
      <span className="flex flex-wrap gap-2">
        <button type="submit" className="button button-primary">
          Write it down
        </button>
        <button type="button" className="button" onClick={() => say('defect')}>
          Open as a defect
        </button>
        <button type="button" className="button" onClick={() => setOpen(false)}>
          Back
        </button>
      </span>
    </form>
  );
}
