'use client';

import Link from 'next/link';
import { useCallback, useMemo, useState } from 'react';
import { vlansOf } from '@/core/plan';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { StationHead } from '../../parts/station-head';
import { AddressStrip } from './address-strip';
import { SegmentTable } from './segment-table';
import { AddSegmentDialog } from './add-segment';

export function SegmentsStation() {
  const plan = usePlan();
  const session = useSession();
  const set = useView((state) => state.set);
  const [adding, setAdding] = useState(false);
  const fit = useCallback(
    () =>
      set({
        review: { title: 'Fit', call: { operation: 'packSubnets', input: {} }, accept: 'Take this packing' },
      }),
    [set],
  );
  const commands = useMemo(
    () => [
      { key: '+', name: 'add a segment', run: () => setAdding(true) },
      { key: 'f', name: 'Fit: re-pack the subnets', run: fit },
      { key: 'Alt ↑ ↓', name: 'on a row: move the segment up or down', run: null },
      { key: '← →', name: 'on the strip: move the segment to the next free block', run: null },
    ],
    [fit],
  );
  useCommands(commands);
  return (
    <>
      <StationHead
        title="Segments"
        about="one VLAN with its subnets each; the strip is this site’s address space"
      >
        <button type="button" className="button" onClick={fit}>
          Fit… <span className="key">f</span>
        </button>
        <button type="button" className="button button-primary" onClick={() => setAdding(true)}>
          Add segment <span className="key">+</span>
        </button>
      </StationHead>
      <AddressStrip />
      {vlansOf(plan).length === 0 ? (
        <p className="border-t-2 border-ink pt-3">
          No segments yet. Start with management, then one for each group of things that should talk freely:
          press + and a letter. Or have{' '}
          <Link href={`/site/${session.siteId}/brief`} className="link">
            a first plan made of the brief
          </Link>
          .
        </p>
      ) : (
        <SegmentTable />
      )}
      {adding && <AddSegmentDialog onClose={() => setAdding(false)} />}
    </>
  );
}
