import { sheetPage } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The port schedule as a page to print. */
export default sheetPage('ports');
