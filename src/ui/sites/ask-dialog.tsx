'use client';

import { type FormEvent, type ReactNode, useState } from 'react';
import { Dialog } from '../parts/dialog';
import { Problem } from '../parts/problem';

interface AskProps {
  readonly title: string;
  readonly act: string;
  readonly onAct: () => Promise<void>;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog that does one thing: shows why it failed and stays, closes when it is done. */
export function AskDialog({ title, act, onAct, onClose, children }: AskProps) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await onAct();
      onClose();
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog title={title} open onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        {children}
        <Problem text={problem} className="mt-2" />
        <button type="submit" className="button button-primary mt-3" disabled={busy}>
          {act}
        </button>
      </form>
    </Dialog>
  );
}

export function AskField({
  label,
  value,
  onChange,
  placeholder,
  autoFocus,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  placeholder?: string;
  autoFocus?: boolean;
}) {
  return (
    <label className="block py-1">
      {label}
      <input
        autoFocus={autoFocus}
        className="field field-line"
        value={value}
        placeholder={placeholder}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
