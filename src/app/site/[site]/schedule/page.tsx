import { notFound } from 'next/navigation';
import { Problem } from '@/app/api/_lib/problem';
import { currentPlan } from '@/app/api/_lib/plans';
import { SchedulePage } from '@/ui/schedule/schedule-page';

export const dynamic = 'force-dynamic';

/** The address schedule as a page to print, made on the server from the saved plan. */
export default async function Page({ params }: { params: Promise<{ site: string }> }) {
  const { site } = await params;
  try {
    const { plan, revision } = await currentPlan(site);
    return <SchedulePage siteId={site} plan={plan} revision={revision} today={new Date().toISOString().slice(0, 10)} />;
  } catch (error) {
    if (error instanceof Problem && error.status === 404) notFound();
    throw error;
  }
}
