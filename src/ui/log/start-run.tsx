'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { OrderEdit } from '@/core/commission';
import { badInput } from '@/core/plan';
import { useSession, useSite } from '../session/context';
import { useLogBook } from '../session/log-context';
import { dayText } from '../parts/dates';
import { Dialog } from '../parts/dialog';
import { Form, FormLine, useTypedForm } from '../parts/form';

/** Begins a run of the order as it is shown, and goes to its first step. */
export function StartRun({ edits = [] }: { edits?: readonly OrderEdit[] }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="button button-primary" onClick={() => setOpen(true)}>
        Start a run
      </button>
      {open && (
        <Dialog
          title="Start a run"
          open
          onClose={() => setOpen(false)}
          describe="The order step by step, to be ticked beside the boxes, on a phone too, and with no network."
        >
          <NameOfRun edits={edits} />
        </Dialog>
      )}
    </>
  );
}

function NameOfRun({ edits }: { edits: readonly OrderEdit[] }) {
  const book = useLogBook();
  const router = useRouter();
  const { siteId } = useSession();
  const revision = useSite((state) => state.revision);
  const begin = (name: string) => {
    if (name === '') throw badInput('the name is empty; write one, like “rack on Monday”.', 'name');
    if (name.length > 80)
      throw badInput('the name is longer than 80 characters; write a shorter one.', 'name');
    const run = book.add({ kind: 'run', name, edits: [...edits] }, revision);
    router.push(`/site/${siteId}/run?run=${run}`);
  };
  const form = useTypedForm({ name: dayText(new Date().toISOString()) }, ({ name }) => begin(name.trim()));
  return (
    <Form form={form} label="Start a run" layout="sheet">
      <FormLine name="name" label="Name" autoFocus />
      <div>
        <button type="submit" className="button button-primary">
          Start
        </button>
      </div>
    </Form>
  );
}
