import { notFound } from 'next/navigation';
import { nameOf } from '@/db/sites';
import { application } from '@/server/application';
import { Sheet, type SheetName } from '@/ui/schedule/sheet';

interface Params {
  readonly params: Promise<{ site: string }>;
}

/** The page of a sheet to print; an unknown site has none. */
export const sheetPage = (name: SheetName) =>
  async function Page({ params }: Params) {
    const { site } = await params;
    if ((await nameOf(application().pool, site)) === null) notFound();
    return <Sheet siteId={site} name={name} />;
  };
