import type { Metadata } from 'next';
import { RunPage } from '@/ui/run/run-page';

export const metadata: Metadata = { title: 'Run' };

interface Props {
  readonly params: Promise<{ site: string }>;
}

/** A run of the order, beside the boxes. */
export default async function Page({ params }: Props) {
  return <RunPage siteId={(await params).site} />;
}
