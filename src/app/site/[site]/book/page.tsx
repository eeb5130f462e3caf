import { sheetPage } from '../_sheet';

export const dynamic = 'force-dynamic';

/** The as-built book as a page to print, and to take away as a PDF. */
export default sheetPage('book');
