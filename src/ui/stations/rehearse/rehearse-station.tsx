'use client';

import { usePlan } from '../../session/context';
import { type Rehearsal, useView } from '../../session/view';
import { StationHead } from '../../parts/station-head';
import { Ask } from './ask';
import { ExercisePanel } from './exercise';
import { PlugInPanel } from './plug-in';
import { TreesPanel } from './trees';
import { WhatIf } from './what-if';

const tabs: readonly (readonly [Rehearsal, string])[] = [
  ['ask', 'Questions'],
  ['dhcp', 'DHCP'],
  ['what-if', 'What if'],
  ['trees', 'Spanning trees'],
  ['exercise', 'Faults to find'],
];

/** Runs the network before it exists. */
export function RehearseStation() {
  const plan = usePlan();
  const { rehearsal, set } = useView();
  return (
    <>
      <StationHead title="Rehearse" about="before it exists">
        <div role="tablist" aria-label="What to rehearse" className="flex flex-wrap gap-2">
          {tabs.map(([tab, label]) => (
            <button
              key={tab}
              type="button"
              role="tab"
              aria-selected={rehearsal === tab}
              className={`button ${rehearsal === tab ? 'button-primary' : ''}`}
              onClick={() => set({ rehearsal: tab })}
            >
              {label}
            </button>
          ))}
        </div>
      </StationHead>
      {rehearsal === 'ask' && <Ask plan={plan} />}
      {rehearsal === 'dhcp' && <PlugInPanel plan={plan} />}
      {rehearsal === 'what-if' && <WhatIf plan={plan} />}
      {rehearsal === 'trees' && <TreesPanel plan={plan} />}
      {rehearsal === 'exercise' && <ExercisePanel />}
    </>
  );
}
