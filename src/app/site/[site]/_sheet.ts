import { today } from '@/today';
import { notFound } from 'next/navigation';
import { Problem } from '@/app/api/_lib/problem';
import { currentPlan } from '@/app/api/_lib/plans';

export interface SheetParams {
  readonly params: Promise<{ site: string }>;
}

/** What a sheet to print is made from: the saved plan and the day; an unknown site has no sheet. */
export async function sheetOf({ params }: SheetParams) {
  const { site } = await params;
  const loaded = await currentPlan(site).catch((error: unknown) => {
    if (error instanceof Problem && error.status === 404) return null;
    throw error;
  });
  if (!loaded) notFound();
  return { siteId: site, plan: loaded.plan, revision: loaded.revision, today: today() };
}
