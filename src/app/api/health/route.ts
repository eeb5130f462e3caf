import { routes } from '@/contract';
import { serve } from '../_lib/serve';

export const dynamic = 'force-dynamic';

/** The process is alive, whatever the database does. */
export const GET = serve(routes.machine.health, async () => ({ ok: true as const }));
