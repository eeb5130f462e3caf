'use client';

import { useState } from 'react';
import { settingsSheets } from '@/core/commission';
import { siteOf } from '@/core/plan';
import { FormersAwaited } from '../parts/formers-awaited';
import { FormerPlans } from '../session/former-plans';
import { useFormers } from '../session/use-formers';
import { Paper } from './paper';
import { SettingsBlock } from './settings-block';
import type { SheetProps } from './sheet';

/** What is to be set at each box for paper, to be ticked off beside it. */
export function SettingsPage({ siteId, plan, revision, today }: SheetProps) {
  const [plans] = useState(() => new FormerPlans(siteId));
  const { formers, problem } = useFormers(plans, plan);
  const sheets = formers ? settingsSheets(plan, today, formers) : [];
  return (
    <Paper
      siteId={siteId}
      title={`${siteOf(plan).name}: settings`}
      revision={revision}
      today={today}
      from="commission?list=settings"
    >
      {!formers && <FormersAwaited problem={problem} />}
      {formers && sheets.length === 0 && <p className="py-4">Nothing is left to set on this site.</p>}
      {sheets.map((sheet) => (
        <SettingsBlock key={sheet.devices.map(({ id }) => id).join(' ')} sheet={sheet} />
      ))}
    </Paper>
  );
}
