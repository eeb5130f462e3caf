'use client';

import { useState } from 'react';
import { useAuthor } from '../session/author';
import { Dialog } from '../parts/dialog';

/** Asks who works here, once per browser and whenever they ask for it; the journal names them. Put off, it is asked again. */
export function AuthorDialog() {
  const { name, asked, setName, ask } = useAuthor();
  const open = asked ?? name === '';
  return open && <AskName name={name} onName={setName} onClose={() => ask(false)} />;
}

function AskName({
  name,
  onName,
  onClose,
}: {
  name: string;
  onName: (name: string) => void;
  onClose: () => void;
}) {
  const [typed, setTyped] = useState(name);
  const save = () => {
    if (typed.trim() !== '') onName(typed.trim());
    onClose();
  };
  return (
    <Dialog
      title="Who are you?"
      open
      onClose={onClose}
      describe="The history names who changed what. Kept in this browser; you can change it beside the stations."
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
