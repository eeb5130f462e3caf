import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The rule schedule as CSV. */
export const GET = serveFile(routes.files.rules, 'rules', 'text/csv; charset=utf-8', '-rules.csv');
