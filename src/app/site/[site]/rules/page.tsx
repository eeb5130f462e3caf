import { RuleSchedulePage } from '@/ui/schedule/rule-schedule-page';
import { type SheetParams, sheetOf } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The rule schedule as a page to print, made on the server from the saved plan. */
export default async function Page(props: SheetParams) {
  return <RuleSchedulePage {...await sheetOf(props)} />;
}
