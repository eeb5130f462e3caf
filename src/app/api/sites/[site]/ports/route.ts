import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The port schedule as CSV. */
export const GET = serveFile(routes.files.ports, 'ports', 'text/csv; charset=utf-8', '-ports.csv');
