'use client';

import { useMemo } from 'react';
import { type WireSetting, settingsSheets } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { today } from '@/today';
import { useSession } from '../session/context';
import { useFormers } from '../session/use-formers';
import { useTicking } from '../log/ticking';
import { FormersAwaited } from '../parts/formers-awaited';
import { SettingsBlock } from '../schedule/settings-block';

/** What is to be set on the pages of a step, line by line. */
export function PagesToSet({
  plan,
  run,
  device,
  settings,
}: {
  plan: Plan;
  run: string;
  device: string;
  settings: readonly WireSetting[];
}) {
  const { formers: plans } = useSession();
  const { formers, problem } = useFormers(plans, plan);
  const wanted = settings.flatMap(({ setting }) => (setting.kind === 'pages' ? setting.pages : [])).join(' ');
  const sheets = useMemo(() => {
    const names = new Set(wanted.split(' '));
    return (formers ? settingsSheets(plan, today(), formers) : [])
      .filter(({ devices }) => devices.some(({ id }) => id === device))
      .map((sheet) => ({ ...sheet, pages: sheet.pages.filter(({ page }) => names.has(page)) }))
      .filter(({ pages }) => pages.length > 0);
  }, [plan, device, formers, wanted]);
  const ticking = useTicking(device, run);
  if (!formers) return <FormersAwaited problem={problem} />;
  return sheets.map((sheet) => <SettingsBlock key={sheet.devices.length} sheet={sheet} ticking={ticking} />);
}
