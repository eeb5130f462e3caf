import { today } from '@/today';
import { notFound } from 'next/navigation';
import { application } from '@/server/application';

export interface SheetParams {
  readonly params: Promise<{ site: string }>;
}

/** What a sheet to print is made from: the saved plan and the day; an unknown site has no sheet. */
export async function sheetOf({ params }: SheetParams) {
  const { site } = await params;
  const loaded = await application().plans.newest(site);
  if (!loaded) notFound();
  return { siteId: site, plan: loaded.plan, revision: loaded.revision, today: today() };
}
