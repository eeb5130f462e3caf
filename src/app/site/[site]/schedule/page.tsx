import { notFound } from 'next/navigation';
import { Problem } from '@/app/api/_lib/problem';
import { currentPlan } from '@/app/api/_lib/plans';
import { SchedulePage } from '@/ui/schedule/schedule-page';

export const dynamic = 'force-dynamic';

/** The address schedule as a page to print, made on the server from the saved plan. */
export default async function Page({ params }: { params: Promise<{ site: string }> }) {
  const { site } = await params;
  const loaded = await currentPlan(site).catch((error: unknown) => {
    if (error instanceof Problem && error.status === 404) return null;
    throw error;
  });
  if (!loaded) notFound();
  const today = new Date().toISOString().slice(0, 10);
  return <SchedulePage siteId={site} plan={loaded.plan} revision={loaded.revision} today={today} />;
}
