'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import type { OrderEdit } from '@/core/commission';
import { Dialog } from '../parts/dialog';

const NameOfRun = dynamic(() => import('./name-of-run').then((m) => m.NameOfRun));

/** Begins a run of the order as it is shown, and goes to its first step. */
export function StartRun({
  edits = [],
  minutes = null,
}: {
  edits?: readonly OrderEdit[];
  /** How much time there is, where somebody said so. */
  minutes?: number | null;
}) {
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
          <NameOfRun edits={edits} minutes={minutes} />
        </Dialog>
      )}
    </>
  );
}
