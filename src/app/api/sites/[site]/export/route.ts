import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The whole plan as one file. */
export const GET = serveFile(routes.files.plan, 'plan', 'application/json', '.dianome.json');
