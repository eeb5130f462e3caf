import { MEGABYTE } from '../contract';
import { type Allowed, type Asked, judged, safeHeaders } from './gate';

const nobody: Allowed = { hosts: [], origins: [] };
const ask = (method: string, url: string, headers: Record<string, string> = {}): Asked => ({
  method,
  url,
  headers: { host: '127.0.0.1:4380', ...headers },
});
const statusOf = (asked: Asked, allowed = nobody) => {
  const verdict = judged(asked, allowed);
  return 'problem' in verdict ? verdict.problem.status : (verdict.route?.path ?? 'page');
};

describe('the gate', () => {
  test.each([
    ['TRACE', '/', 405],
    ['CONNECT', '/', 405],
    ['BREW', '/api/sites', 405],
    ['OPTIONS', '*', 400],
    ['GET', 'http://elsewhere.example.net/', 400],
    ['GET', '/api/sites/%zz/plan', 400],
    ['GET', '/site/%E0%A4%A/gear', 400],
    ['GET', '/api/sites?after=%', 400],
    ['GET', '/api/nosuch', 404],
    ['GET', '/api', 404],
    ['GET', '/api/sites/a/b/c', 404],
    ['PATCH', '/api/sites', 405],
    ['OPTIONS', '/api/sites', 405],
    ['POST', '/api/sites/abc/plan', 405],
    ['GET', '/api/sites/abc/plan', '/api/sites/{site}/plan'],
    ['HEAD', '/api/sites/abc/plan', '/api/sites/{site}/plan'],
    ['POST', '/api/sites/abc/changes', '/api/sites/{site}/changes'],
    ['GET', '/site/abc/gear?device=d1', 'page'],
  ])('%s %s: %s', (method, url, expected) => {
    expect(statusOf(ask(method, url))).toBe(expected);
  });

  test('says which methods there are', () => {
    expect(judged(ask('PATCH', '/api/sites'), nobody)).toMatchObject({ headers: { allow: 'GET, POST' } });
  });

  test.each([
    [{ host: 'plan.example.net' }, 403],
    [{ host: 'evil.example.net:4380' }, 403],
    [{ host: 'localhost:4380' }, 'page'],
    [{ host: '[::1]:4380' }, 'page'],
    [{ origin: 'http://127.0.0.1:4380' }, 'page'],
    // A page on another port of the same machine is another page.
    [{ origin: 'http://127.0.0.1:8000' }, 403],
    [{ origin: 'https://127.0.0.1:4380' }, 403],
    [{ origin: 'null' }, 403],
    [{ 'sec-fetch-site': 'same-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'iframe' }, 403],
    [{ 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' }, 'page'],
    [{ 'sec-fetch-site': 'same-origin' }, 'page'],
  ])('a page asked for with %j: %s', (headers, expected) => {
    expect(statusOf(ask('GET', '/', headers))).toBe(expected);
  });

  test.each(['cross-site', 'same-site'])('no other page reads an answer: %s', (site) => {
    const headers = { 'sec-fetch-site': site, 'sec-fetch-mode': 'navigate', 'sec-fetch-dest': 'document' };
    expect(statusOf(ask('GET', '/api/sites', headers))).toBe(403);
  });

  test('behind a proxy answers to the names it was given, and to pages of those only', () => {
    const proxied = { hosts: ['plan.example.net'], origins: ['https://plan.example.net'] };
    const headers = { host: 'plan.example.net', origin: 'https://plan.example.net' };
    expect(statusOf(ask('POST', '/api/sites', headers), proxied)).toBe('/api/sites');
    expect(statusOf(ask('POST', '/api/sites', { ...headers, origin: 'https://example.net' }), proxied)).toBe(
      403,
    );
  });

  test('a body over the limit of its route is refused by its length alone', () => {
    const long = (bytes: number) => ({ 'content-length': String(bytes) });
    expect(statusOf(ask('PATCH', '/api/sites/abc', long(MEGABYTE + 1)))).toBe(413);
    expect(statusOf(ask('PATCH', '/api/sites/abc', long(MEGABYTE)))).toBe('/api/sites/{site}');
    expect(statusOf(ask('POST', '/api/sites', long(40 * MEGABYTE)))).toBe('/api/sites');
    expect(judged(ask('POST', '/api/sites', long(400 * MEGABYTE)), nobody)).toMatchObject({
      problem: { detail: expect.stringContaining('400 MB; at most 72 MB') },
    });
  });
});

test('no page of this server may be framed, and only scripts of its own run', () => {
  const policy = safeHeaders('abc', false)['content-security-policy']!;
  expect(policy).toContain("frame-ancestors 'none'");
  expect(policy).toMatch(/script-src 'self' 'nonce-abc';/);
});
