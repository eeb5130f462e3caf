import { PortSchedulePage } from '@/ui/schedule/port-schedule-page';
import { type SheetParams, sheetOf } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The port schedule as a page to print, made on the server from the saved plan. */
export default async function Page(props: SheetParams) {
  return <PortSchedulePage {...await sheetOf(props)} />;
}
