import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** What telephones are told with their lease, for dnsmasq. */
export const GET = serveFile(
  routes.files.telephones,
  'telephones',
  'text/plain; charset=utf-8',
  '-telephones.conf',
);
