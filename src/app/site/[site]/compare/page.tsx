import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { nameOf } from '@/db/sites';
import { application } from '@/server/application';
import { ComparePage } from '@/ui/schedule/compare-page';

export const dynamic = 'force-dynamic';
export const metadata: Metadata = { title: 'Compare' };

interface Props {
  readonly params: Promise<{ site: string }>;
}

/** Two plans side by side, as a page to print. */
export default async function Page({ params }: Props) {
  const { site } = await params;
  if ((await nameOf(application().pool, site)) === null) notFound();
  return <ComparePage siteId={site} />;
}
