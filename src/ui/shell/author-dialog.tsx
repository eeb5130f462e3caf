'use client';

import { useState } from 'react';
import { useAuthor } from '../session/author';
import { Dialog } from '../parts/dialog';

/** Asks once per browser who works here; the journal names them. */
export function AuthorDialog() {
  const { name, setName } = useAuthor();
  const [typed, setTyped] = useState('');
  const open = name === '';
  const save = () => setName(typed.trim() || 'unnamed');
  return (
    <Dialog
      title="Who are you?"
      open={open}
      onClose={save}
      describe="The history names who changed what. Asked once in this browser."
    >
      <form
        className="flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
      >
        <label className="flex-1">
          Your name
          <input
            autoFocus
            className="field field-line"
            maxLength={60}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button type="submit" className="button button-primary">
          Start
        </button>
      </form>
    </Dialog>
  );
}
