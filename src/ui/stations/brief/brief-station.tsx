'use client';

import dynamic from 'next/dynamic';
import { usePlan } from '../../session/context';
import { type BriefView as View, useView } from '../../session/view';
import { type Alternative, OneOf } from '../../parts/one-of';
import { StationHead } from '../../parts/station-head';
import { BriefView } from './brief-view';

const HabitsView = dynamic(() => import('./habits-view').then((m) => m.HabitsView));
const ProposalView = dynamic(() => import('./proposal-view').then((m) => m.ProposalView));

const views: readonly Alternative<View>[] = [
  { value: 'brief', shown: 'brief', title: 'what the customer wants connected, and under which rules' },
  { value: 'proposal', shown: 'proposal', title: 'the whole first plan worked out from it' },
  { value: 'habits', shown: 'habits', title: 'name, address space and habits of the site' },
];

/** What the customer asks for, and what is made of it. */
export function BriefStation() {
  const plan = usePlan();
  const shown = useView((state) => state.brief);
  const set = useView((state) => state.set);
  return (
    <>
      <StationHead title="Brief" about="what the customer asks for, and the first plan made of it">
        <OneOf label="Show" look="bar" value={shown} of={views} onChoose={(brief) => set({ brief })} />
      </StationHead>
      {shown === 'brief' && <BriefView plan={plan} />}
      {shown === 'proposal' && <ProposalView plan={plan} />}
      {shown === 'habits' && <HabitsView />}
    </>
  );
}
