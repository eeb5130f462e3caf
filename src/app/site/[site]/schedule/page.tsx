import { SchedulePage } from '@/ui/schedule/schedule-page';
import { type SheetParams, sheetOf } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The address schedule as a page to print, made on the server from the saved plan. */
export default async function Page(props: SheetParams) {
  return <SchedulePage {...await sheetOf(props)} />;
}
