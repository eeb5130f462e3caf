'use client';

import { type FormEvent, type ReactNode, useState } from 'react';
import type { Call } from '@/core/plan';
import { problemOf } from '../session/attempt';
import { useSession } from '../session/context';
import { Choice } from './field';
import { Problem } from './problem';

export interface Line {
  readonly id: string;
  readonly shown: ReactNode;
  /** What the button that takes it away is called for a reader. */
  readonly removal: string;
  readonly remove: Call;
}

export interface Blank<N extends string> {
  readonly name: N;
  readonly label: string;
  readonly placeholder?: string;
  readonly width?: number;
  readonly mono?: boolean;
  /** A choice instead of a line to type in; the first is taken until another is chosen. */
  readonly options?: readonly { readonly value: string; readonly label: string }[];
}

/** A ruled list of short records, each with a button that takes it away, and the line that adds one. */
export function Lines<N extends string>({
  title,
  about,
  lines,
  blanks,
  action,
  onAdd,
  children,
}: {
  title: string;
  about?: string;
  lines: readonly Line[];
  blanks: readonly Blank<N>[];
  action: string;
  /** Adds a record from what is typed; a Refusal stays beside the form, with what was typed. */
  onAdd: (typed: Readonly<Record<N, string>>) => Call;
  children?: ReactNode;
}) {
  const session = useSession();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState('');
  const valueOf = ({ name, options }: Blank<N>) => typed[name] ?? options?.[0]?.value ?? '';
  const add = (event: FormEvent) => {
    event.preventDefault();
    const values = Object.fromEntries(blanks.map((blank) => [blank.name, valueOf(blank).trim()])) as Record<
      N,
      string
    >;
    const found = problemOf(() => session.perform(onAdd(values)));
    setProblem(found);
    if (!found) setTyped({});
  };
  return (
    <section aria-label={title} className="mb-5 max-w-[860px]">
      <h3 className="border-b-2 border-ink font-bold">{title}</h3>
      {about && lines.length === 0 && <p className="text-[14px] text-muted">{about}</p>}
      <ul className="text-[14px]">
        {lines.map((line) => (
          <li key={line.id} className="flex items-center justify-between gap-2 border-b border-rule">
            <div className="min-w-0">{line.shown}</div>
            <button
              type="button"
              className="link"
              aria-label={line.removal}
              onClick={() => session.perform(line.remove)}
            >
              remove
            </button>
          </li>
        ))}
      </ul>
      {blanks.length > 0 && (
        <form aria-label={`New: ${title}`} onSubmit={add} className="flex flex-wrap items-end gap-2 py-1">
          {blanks.map((blank) => (
            <label key={blank.name} className="text-[13px]" style={{ width: blank.width ?? 160 }}>
              {blank.label}
              {blank.options ? (
                <Choice
                  lined
                  label={blank.label}
                  value={valueOf(blank)}
                  options={blank.options}
                  onChoose={(value) => setTyped({ ...typed, [blank.name]: value })}
                />
              ) : (
                <input
                  className={`field field-line ${blank.mono ? 'mono' : ''}`}
                  value={valueOf(blank)}
                  placeholder={blank.placeholder}
                  autoComplete="off"
                  onChange={(event) => setTyped({ ...typed, [blank.name]: event.target.value })}
                />
              )}
            </label>
          ))}
          <button type="submit" className="button">
            {action}
          </button>
          <Problem text={problem} className="w-full text-[14px]" />
        </form>
      )}
      {children}
    </section>
  );
}
