import { sheetPage } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The rule schedule as a page to print. */
export default sheetPage('rules');
