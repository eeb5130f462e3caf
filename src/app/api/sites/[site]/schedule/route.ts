import { routes } from '@/contract';
import { serveFile } from '../../../_lib/download';

export const dynamic = 'force-dynamic';

/** The address schedule as CSV. */
export const GET = serveFile(
  routes.files.addresses,
  'addresses',
  'text/csv; charset=utf-8',
  '-addresses.csv',
);
