import { BODY_LIMIT, MEGABYTE, type Route } from '../contract';
import { allRoutes } from '../contract/all-routes';
import type { ProblemDetails } from '../contract';

/**
 * What is looked at before a request goes anywhere: whether it is one this server answers at all. It stands in front of the
 * framework, which answers some of these with an empty 500.
 */

export interface Asked {
  readonly method: string;
  /** As it stands in the request line. */
  readonly url: string;
  readonly headers: Readonly<Record<string, string | readonly string[] | undefined>>;
}

export interface Allowed {
  /** Names this server is reached by, besides the loopback ones, with their port where it is not the usual one. */
  readonly hosts: readonly string[];
  /** Origins of its own pages, where a proxy stands in front: https://plan.example.net */
  readonly origins: readonly string[];
}

export interface Refused {
  readonly problem: ProblemDetails;
  readonly headers: Readonly<Record<string, string>>;
}
export interface Passed {
  /** The route of the contract; null for a page or a file of it. */
  readonly route: Route | null;
}

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/i;
const METHODS = ['GET', 'HEAD', 'POST', 'PATCH', 'DELETE', 'OPTIONS'];

const refuse = (
  status: number,
  title: string,
  detail: string,
  headers: Readonly<Record<string, string>> = {},
): Refused => ({ problem: { type: 'about:blank', title, status, detail }, headers });

const shown = (text: string) => text.slice(0, 80);
const header = (asked: Asked, name: string): string | null => {
  const value = asked.headers[name];
  return typeof value === 'string' ? value : null;
};

/** The paths of the contract as patterns, by what they look like. */
const PATHS = [...new Set(allRoutes.map(({ path }) => path))].map((path) => ({
  path,
  form: new RegExp(`^${path.replace('{site}', '[^/]+')}$`),
  routes: allRoutes.filter((route) => route.path === path),
}));

export function judged(asked: Asked, allowed: Allowed): Refused | Passed {
  const { method, url } = asked;
  if (!METHODS.includes(method))
    return refuse(405, 'Method not allowed', `${shown(method)} is not answered here.`, {
      allow: METHODS.join(', '),
    });
  const path = url.split('?')[0]!;
  if (!path.startsWith('/') || !decodes(url))
    return refuse(400, 'Bad address', `“${shown(url)}” is no address of this server; check its % signs.`);
  const elsewhere = foreign(asked, allowed, path);
  if (elsewhere) return elsewhere;
  if (path !== '/api' && !path.startsWith('/api/')) return { route: null };
  const known = PATHS.find(({ form }) => form.test(path));
  if (!known)
    return refuse(
      404,
      'Unknown address',
      `There is nothing at ${shown(path)}; docs/openapi.json lists what there is.`,
    );
  const route = known.routes.find((item) => item.method === (method === 'HEAD' ? 'GET' : method));
  if (!route) {
    const may = known.routes.map((item) => item.method).join(', ');
    return refuse(405, 'Method not allowed', `${method} is not answered at ${known.path}; use ${may}.`, {
      allow: may,
    });
  }
  return tooLarge(asked, route) ?? { route };
}

function decodes(url: string): boolean {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}

/**
 * A loopback server is reached from any page in the same browser, under any name that resolves to it. So the Host must be one of
 * its own names, and a request that says where it comes from must come from a page of this very server, port and all.
 */
function foreign(asked: Asked, { hosts, origins }: Allowed, path: string): Refused | null {
  const host = header(asked, 'host') ?? '';
  if (!LOOPBACK.test(host) && !hosts.includes(host.toLowerCase()))
    return refuse(
      403,
      'Wrong host',
      `This server does not answer to the name “${shown(host)}”. Where a proxy stands in front, add the name to DIANOME_HOSTS.`,
    );
  const origin = header(asked, 'origin');
  if (origin !== null && origin !== `http://${host}` && !origins.includes(origin))
    return refuse(
      403,
      'Wrong origin',
      'Requests from other pages are not accepted. Where a proxy with TLS stands in front, add its address to DIANOME_ORIGINS.',
    );
  const from = header(asked, 'sec-fetch-site');
  const inside = from === null || from === 'same-origin' || from === 'none';
  // A link from elsewhere may lead to a page, but nothing else may be fetched or framed.
  const follows =
    header(asked, 'sec-fetch-mode') === 'navigate' && header(asked, 'sec-fetch-dest') === 'document';
  if (!inside && (path.startsWith('/api/') || !follows))
    return refuse(403, 'Wrong origin', 'Requests from other pages are not accepted.');
  return null;
}

function tooLarge(asked: Asked, route: Route): Refused | null {
  const size = Number(header(asked, 'content-length') ?? 0);
  const limit = route.limit ?? BODY_LIMIT;
  if (!(size > limit)) return null;
  return refuse(
    413,
    'Too large',
    `The body has ${Math.ceil(size / MEGABYTE)} MB; at most ${limit / MEGABYTE} MB are read here. Send a smaller one.`,
  );
}

/** What goes with every answer. The nonce is that of the scripts of a page. */
export function safeHeaders(nonce: string, dev: boolean): Readonly<Record<string, string>> {
  // Live reload evaluates code.
  const scripts = dev ? "'unsafe-eval' 'unsafe-inline'" : `'nonce-${nonce}'`;
  const policy = [
    "default-src 'none'",
    `script-src 'self' ${scripts}`,
    // Widths and colours of drawings are set on the elements.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    `connect-src 'self'${dev ? ' ws:' : ''}`,
    "worker-src 'self' blob:",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  return {
    'content-security-policy': policy,
    'x-content-type-options': 'nosniff',
    'x-frame-options': 'DENY',
    'referrer-policy': 'same-origin',
    'permissions-policy': 'camera=(), microphone=(), geolocation=(), payment=(), usb=()',
    'cross-origin-opener-policy': 'same-origin',
    'cross-origin-resource-policy': 'same-origin',
  };
}
