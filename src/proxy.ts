import { type NextRequest, NextResponse } from 'next/server';

/**
 * A loopback server is reachable from any page in the same browser, under any name that resolves to it. So the Host
 * must be a loopback name, and a request that says where it comes from must come from this very server.
 */
const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i;

const refuse = (title: string, detail: string) =>
  NextResponse.json(
    { type: 'about:blank', title, status: 403, detail },
    { status: 403, headers: { 'content-type': 'application/problem+json' } },
  );

export function proxy(request: NextRequest) {
  const host = request.headers.get('host') ?? '';
  if (!LOOPBACK.test(host))
    return refuse('Wrong host', `This server answers only on loopback names, not “${host.slice(0, 80)}”.`);
  const origin = request.headers.get('origin');
  if (origin !== null && origin !== `http://${host}`)
    return refuse('Wrong origin', 'Requests from other pages are not accepted.');
  if (request.headers.get('sec-fetch-site') === 'cross-site' && request.nextUrl.pathname.startsWith('/api/'))
    return refuse('Wrong origin', 'Requests from other pages are not accepted.');
  return NextResponse.next();
}
