import { sheetPage } from '../_sheet';

export const dynamic = 'force-dynamic';

/** What is to be set at each box as a page to print. */
export default sheetPage('settings');
