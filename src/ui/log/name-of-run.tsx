'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { OrderEdit } from '@/core/commission';
import { badInput } from '@/core/plan';
import { useSession, useSite } from '../session/context';
import { useLogBook } from '../session/log-context';
import { dayText } from '../parts/dates';
import { Form, FormLine, useTypedForm } from '../parts/form';

const two = (n: number) => String(n).padStart(2, '0');
const clockOf = (at: Date): string => `${two(at.getHours())}:${two(at.getMinutes())}`;

/** The next moment with that time of day; null where none is typed. Throws a Refusal. */
function timeToday(text: string): string | null {
  if (text === '') return null;
  const [, hours, minutes] = /^(\d{1,2})[:.](\d{2})$/.exec(text) ?? [];
  if (hours === undefined || Number(hours) > 23 || Number(minutes) > 59)
    throw badInput(`“${text}” is no time of day; write one like 18:00, or nothing.`, 'until');
  const at = new Date();
  at.setHours(Number(hours), Number(minutes), 0, 0);
  if (at.getTime() <= Date.now()) at.setDate(at.getDate() + 1);
  return at.toISOString();
}

/** What the run is called, and when the site must work again. */
export function NameOfRun({ edits, minutes }: { edits: readonly OrderEdit[]; minutes: number | null }) {
  const book = useLogBook();
  const router = useRouter();
  const { siteId } = useSession();
  const revision = useSite((state) => state.revision);
  const begin = (name: string, until: string) => {
    if (name === '') throw badInput('the name is empty; write one, like “rack on Monday”.', 'name');
    if (name.length > 80)
      throw badInput('the name is longer than 80 characters; write a shorter one.', 'name');
    const body = { kind: 'run' as const, name, edits: [...edits] };
    const end = timeToday(until);
    const run = book.add(end === null ? body : { ...body, until: end }, revision);
    router.push(`/site/${siteId}/run?run=${run}`);
  };
  // The clock is read once, when the dialog opens.
  const [first] = useState(() => ({
    name: dayText(new Date().toISOString()),
    until: minutes === null ? '' : clockOf(new Date(Date.now() + minutes * 60_000)),
  }));
  const form = useTypedForm(first, ({ name, until }) => begin(name.trim(), until.trim()));
  return (
    <Form form={form} label="Start a run" layout="sheet">
      <FormLine name="name" label="Name" autoFocus />
      <FormLine name="until" label="Must work again by" placeholder="no time set, or 18:00" />
      <div>
        <button type="submit" className="button button-primary">
          Start
        </button>
      </div>
    </Form>
  );
}
