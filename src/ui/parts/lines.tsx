'use client';

import type { ReactNode } from 'react';
import type { Call } from '@/core/plan';
import { useSession } from '../session/context';
import { Form, FormChoice, FormLine, useTypedForm } from './form';

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
  const start = Object.fromEntries(blanks.map(({ name, options }) => [name, options?.[0]?.value ?? '']));
  const form = useTypedForm<Record<string, string>>(
    start,
    (typed) => {
      const trimmed = Object.fromEntries(Object.entries(typed).map(([name, text]) => [name, text.trim()]));
      session.perform(onAdd(trimmed as Record<N, string>));
    },
    { clear: blanks.map(({ name }) => name) },
  );
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
        <Form form={form} label={`New: ${title}`}>
          {blanks.map(({ name, label, width = 160, options, mono, placeholder }) =>
            options ? (
              <FormChoice key={name} name={name} label={label} options={options} width={width} />
            ) : (
              <FormLine
                key={name}
                name={name}
                label={label}
                width={width}
                {...(mono ? { mono } : {})}
                {...(placeholder === undefined ? {} : { placeholder })}
              />
            ),
          )}
          <button type="submit" className="button">
            {action}
          </button>
        </Form>
      )}
      {children}
    </section>
  );
}
