import type { Paired } from '../../db/pairings';

/** What a paired phone is answered: the page of its run, what that page is made of, and nothing that changes the plan. */

/** In a request: the only site and run it may see. Set by this server alone. */
export const ONLY = 'x-dianome-only';
export const onlyText = ({ site, run }: Paired): string => `${site} ${run}`;
const onlyIn = (request: Request, at: 0 | 1): string | null =>
  request.headers.get(ONLY)?.split(' ')[at] ?? null;
export const onlySite = (request: Request): string | null => onlyIn(request, 0);
export const onlyRun = (request: Request): string | null => onlyIn(request, 1);

const PROGRAM = /^\/(_next\/static\/[\w./~-]+|sw\.js|icon\.svg|favicon\.ico)$/;

/** May a phone ask this of the site it is paired with? `url` as it stands in the request line. */
export function mayAsk({ site }: Paired, method: string, url: string): boolean {
  const { pathname } = new URL(url, 'https://phone.invalid');
  // A path that says one thing and means another is none.
  if (!url.startsWith(pathname) || pathname.includes('..')) return false;
  const own = `/api/sites/${site}`;
  if (method === 'POST') return pathname === `${own}/log` || pathname === `${own}/photos`;
  if (method !== 'GET' && method !== 'HEAD') return false;
  if (PROGRAM.test(pathname)) return true;
  // The page itself holds nothing of a run: it asks for it.
  return (
    pathname === `/site/${site}/run` ||
    pathname === '/api/events' ||
    [`${own}/plan`, `${own}/changes`, `${own}/log`, `${own}/photos`, `${own}/exercise`].includes(pathname)
  );
}

const COOKIE = '__Host-dianome-phone';
const HELD = 14 * 24 * 3600;

/** What a phone holds, from its cookies. */
export const heldIn = (cookies: string | undefined): string | null =>
  new RegExp(`(?:^|;\\s*)${COOKIE}=([\\w-]{32})(?:;|$)`).exec(cookies ?? '')?.[1] ?? null;

/** The cookies of a paired phone: what it holds, and for its pages that it is one. */
export const cookiesOf = (secret: string): string[] => [
  `${COOKIE}=${secret}; Path=/; Max-Age=${HELD}; Secure; HttpOnly; SameSite=Lax`,
  `dianome-paired=1; Path=/; Max-Age=${HELD}; Secure; SameSite=Lax`,
];
