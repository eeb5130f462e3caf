'use client';

import dynamic from 'next/dynamic';
import { Tabs } from 'radix-ui';
import type { ComponentType } from 'react';
import type { Plan } from '@/core/plan';
import { usePlan } from '../../session/context';
import { type Rehearsal, useView } from '../../session/view';
import { StationHead } from '../../parts/station-head';

const Ask = dynamic(() => import('./ask').then((m) => m.Ask));
const PlugInPanel = dynamic(() => import('./plug-in').then((m) => m.PlugInPanel));
const WhatIf = dynamic(() => import('./what-if').then((m) => m.WhatIf));
const TreesPanel = dynamic(() => import('./trees').then((m) => m.TreesPanel));
const ExercisePanel = dynamic<{ plan: Plan }>(() => import('./exercise').then((m) => m.ExercisePanel));

const tabs: readonly (readonly [Rehearsal, string, ComponentType<{ plan: Plan }>])[] = [
  ['ask', 'Questions', Ask],
  ['dhcp', 'DHCP', PlugInPanel],
  ['what-if', 'What if', WhatIf],
  ['trees', 'Spanning trees', TreesPanel],
  ['exercise', 'Faults to find', ExercisePanel],
];

/** Runs the network before it exists. */
export function RehearseStation() {
  const plan = usePlan();
  const { rehearsal, set } = useView();
  return (
    <Tabs.Root value={rehearsal} onValueChange={(tab) => set({ rehearsal: tab as Rehearsal })}>
      <StationHead title="Rehearse" about="before it exists">
        <Tabs.List aria-label="What to rehearse" className="flex flex-wrap gap-2">
          {tabs.map(([tab, label]) => (
            <Tabs.Trigger
              key={tab}
              value={tab}
              className="button data-[state=active]:bg-hivis data-[state=active]:text-on-hivis"
            >
              {label}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </StationHead>
      {tabs.map(([tab, , Panel]) => (
        <Tabs.Content key={tab} value={tab} className="outline-none">
          <Panel plan={plan} />
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
