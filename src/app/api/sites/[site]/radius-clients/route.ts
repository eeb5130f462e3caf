import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The boxes that ask whom to let in, for FreeRADIUS. */
export const GET = serveFile(
  routes.files.radiusClients,
  'radiusClients',
  'text/plain; charset=utf-8',
  '-clients.conf',
);
