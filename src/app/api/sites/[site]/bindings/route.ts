import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The bindings entered at boxes as CSV. */
export const GET = serveFile(routes.files.bindings, 'bindings', 'text/csv; charset=utf-8', '-bindings.csv');
