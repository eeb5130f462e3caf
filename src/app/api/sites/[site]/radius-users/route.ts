import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The devices that may be let in, for FreeRADIUS. */
export const GET = serveFile(routes.files.radiusUsers, 'radiusUsers', 'text/plain; charset=utf-8', '-users');
