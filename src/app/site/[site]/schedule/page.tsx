import { sheetPage } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The address schedule as a page to print. */
export default sheetPage('schedule');
