'use client';

import { type FormEvent, type ReactNode, useState } from 'react';
import { Dialog } from '../parts/dialog';
import type { Progress } from '@/core/plan';
import { Problem } from '../parts/problem';
import { ProgressLine } from '../parts/progress-line';

interface AskProps {
  readonly title: string;
  readonly act: string;
  /** May tell how far it has come. */
  readonly onAct: (hear: (progress: Progress) => void) => Promise<void>;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog that does one thing: shows why it failed and stays, closes when it is done. */
export function AskDialog({ title, act, onAct, onClose, children }: AskProps) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<Progress | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await onAct(setProgress);
      onClose();
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
      setProgress(null);
    }
  };
  return (
    <Dialog title={title} open onClose={onClose}>
      <form onSubmit={(event) => void submit(event)}>
        {children}
        <Problem text={problem} className="mt-2" />
        <div className="mt-3 flex flex-wrap items-center gap-3">
          <button type="submit" className="button button-primary" disabled={busy}>
            {act}
          </button>
          {progress && <ProgressLine label={title} progress={progress} />}
        </div>
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
