'use client';

import { type KeyboardEvent, useId, useRef, useState } from 'react';
import { Refusal } from '@/core/plan';
import { focusStation } from './focus';

interface FieldProps {
  readonly label: string;
  readonly value: string;
  /** Takes the text and the value that was in view when typing began. Throws a Refusal to keep the text and say why. */
  readonly onCommit: (text: string, seen: string) => void;
  readonly mono?: boolean;
  readonly placeholder?: string;
  readonly className?: string;
  readonly lined?: boolean;
  readonly id?: string;
  readonly multiline?: boolean;
}

/**
 * A value edited in place: Enter commits and Esc cancels; leaving the field commits too. On a refusal the text stays,
 * with the reason beside it, until it is mended or given up.
 */
export function Field({
  label,
  value,
  onCommit,
  mono,
  placeholder,
  className = '',
  lined,
  id,
  multiline,
}: FieldProps) {
  const [typed, setTyped] = useState<{ text: string; seen: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const errorId = useId();
  const cancelled = useRef(false);

  const commit = () => {
    if (!typed || cancelled.current) return;
    if (typed.text.trim() === typed.seen.trim()) return reset();
    try {
      onCommit(typed.text.trim(), typed.seen);
      reset();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setProblem(error.message);
    }
  };
  const reset = () => {
    setTyped(null);
    setProblem(null);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>) => {
    if (event.key === 'Enter' && !(multiline && event.shiftKey)) {
      event.preventDefault();
      commit();
    } else if (event.key === 'Escape') {
      if (typed) event.stopPropagation();
      reset();
      // It is left too, so that the next key is a command again; in a dialog the focus stays.
      cancelled.current = true;
      if (!event.currentTarget.closest('[role="dialog"]')) {
        event.currentTarget.blur();
        focusStation();
      }
    }
  };
  const shared = {
    id,
    'aria-label': label,
    'aria-invalid': problem !== null,
    'aria-describedby': problem ? errorId : undefined,
    className: `field ${lined ? 'field-line' : ''} ${mono ? 'mono' : ''} ${className}`,
    value: typed?.text ?? value,
    placeholder,
    spellCheck: false,
    autoComplete: 'off',
    onChange: (event: { target: { value: string } }) => {
      cancelled.current = false;
      setTyped((before) => ({ text: event.target.value, seen: before?.seen ?? value }));
    },
    onBlur: commit,
    onKeyDown,
  };
  return (
    <>
      {multiline ? <textarea rows={3} {...shared} /> : <input type="text" {...shared} />}
      {problem && (
        <p
          id={errorId}
          role="alert"
          className="max-w-[42ch] border-l-4 border-stop bg-sheet px-2 py-1 text-[13px] leading-snug text-stop"
        >
          {problem}
        </p>
      )}
    </>
  );
}
