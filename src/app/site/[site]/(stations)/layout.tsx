import type { ReactNode } from 'react';
import { Inspector } from '@/ui/shell/inspector';
import { SiteShell } from '@/ui/shell/site-shell';

interface Props {
  readonly children: ReactNode;
  readonly params: Promise<{ site: string }>;
}

export default async function SiteLayout({ children, params }: Props) {
  const { site } = await params;
  return (
    <SiteShell siteId={site} inspector={<Inspector />}>
      {children}
    </SiteShell>
  );
}
