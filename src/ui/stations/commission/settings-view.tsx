'use client';

import Link from 'next/link';
import { useMemo } from 'react';
import { settingsSheets } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { today } from '@/today';
import { useSession } from '../../session/context';
import { useFormers } from '../../session/use-formers';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { useTicking } from '../../log/ticking';
import { FormersAwaited } from '../../parts/formers-awaited';
import { ReadyFiles } from './ready-files';
import { SettingsBlock } from '../../schedule/settings-block';

/** What is to be set at one box: what is the same at all of its model, then its own. */
export function SettingsView({ plan }: { plan: Plan }) {
  const { siteId, formers: plans } = useSession();
  const { formers, problem } = useFormers(plans, plan);
  const device = useView((state) => state.device);
  const set = useView((state) => state.set);
  const sheets = useMemo(() => (formers ? settingsSheets(plan, today(), formers) : []), [plan, formers]);
  const boxes = sheets.flatMap(({ devices }) => (devices.length === 1 ? devices : []));
  const chosen = boxes.find(({ id }) => id === device) ?? boxes[0];
  const ticking = useTicking(chosen?.id ?? '');
  if (!formers) return <FormersAwaited problem={problem} />;
  if (!chosen)
    return <p>Nothing is left to set: every box that can be set up is recorded as planned already.</p>;
  const shown = sheets.filter(({ devices }) => devices.some(({ id }) => id === chosen.id));
  return (
    <>
      <div className="no-print flex flex-wrap items-center gap-3">
        <span className="w-[220px] border-b border-ink">
          <Choice
            label="Box"
            value={chosen.id}
            options={boxes.map(({ id, name }) => ({ value: id, label: name }))}
            onChoose={(id) => set({ device: id, ports: [], finding: null })}
          />
        </span>
        <span className="flex-1 text-[14px] text-muted">only what is otherwise than it is now</span>
        <Link className="button" href={`/site/${siteId}/settings`}>
          All boxes to print
        </Link>
      </div>
      <ReadyFiles plan={plan} site={siteId} device={chosen.id} />
      {shown.map((sheet) => (
        <SettingsBlock key={sheet.devices.length} sheet={sheet} ticking={ticking} />
      ))}
    </>
  );
}
