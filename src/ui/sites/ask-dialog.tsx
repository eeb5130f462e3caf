'use client';

import { type ReactNode, useState } from 'react';
import type { DefaultValues, FieldValues } from 'react-hook-form';
import type { Progress } from '@/core/plan';
import { Dialog } from '../parts/dialog';
import { Form, useTypedForm } from '../parts/form';
import { ProgressLine } from '../parts/progress-line';

interface AskProps<V extends FieldValues> {
  readonly title: string;
  readonly act: string;
  readonly initial: DefaultValues<V>;
  /** May tell how far it has come. */
  readonly onAct: (typed: V, hear: (progress: Progress) => void) => Promise<void>;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog that does one thing: shows why it failed and stays, closes when it is done. */
export function AskDialog<V extends FieldValues>({
  title,
  act,
  initial,
  onAct,
  onClose,
  children,
}: AskProps<V>) {
  const [progress, setProgress] = useState<Progress | null>(null);
  const form = useTypedForm<V>(initial, async (typed) => {
    try {
      await onAct(typed, setProgress);
    } finally {
      setProgress(null);
    }
    onClose();
  });
  return (
    <Dialog title={title} open onClose={onClose}>
      <Form form={form} layout="sheet">
        {children}
        <div className="mt-2 flex flex-wrap items-center gap-3">
          <button type="submit" className="button button-primary" disabled={form.form.formState.isSubmitting}>
            {act}
          </button>
          {progress && <ProgressLine label={title} progress={progress} />}
        </div>
      </Form>
    </Dialog>
  );
}
