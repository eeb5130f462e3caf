'use client';

import { usePlan } from '../../session/context';
import { type Rehearsal, useView } from '../../session/view';
import { StationHead } from '../../parts/station-head';
import { Ask } from './ask';
import { Exercise } from './exercise';
import { PlugIn } from './plug-in';
import { Trees } from './trees';
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
      {rehearsal === 'dhcp' && <PlugIn plan={plan} />}
      {rehearsal === 'what-if' && <WhatIf plan={plan} />}
      {rehearsal === 'trees' && <Trees plan={plan} />}
      {rehearsal === 'exercise' && <Exercise />}
    </>
  );
}
