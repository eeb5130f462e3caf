import type { APIRequestContext } from '@playwright/test';
import { demoSite, expect, newSite, test } from './site';

/** What the server answers to input no page of ours would send: always a reason, never a 500. */
let made = 0;
/** A change as a client sends it. */
const change = (fields: object) => ({
  kind: 'change',
  base: 0,
  seed: `outside${(made++).toString(36)}x`,
  author: 'Ada',
  browser: 'browser01',
  digest: '0'.repeat(64),
  operation: 'edit',
  input: {},
  ...fields,
});
const rename = (name: string, seen: string) => ({
  input: { table: 'site', id: 'site', set: { name }, seen: { name: seen } },
});
const post = (request: APIRequestContext, site: string, fields: object) =>
  request.post(`/api/sites/${site}/changes`, { data: change(fields) });

test('refuses other hosts, other origins and other content types', async ({ request }) => {
  expect((await request.get('/api/sites', { headers: { host: 'evil.example.net' } })).status()).toBe(403);
  expect((await request.get('/', { headers: { host: '192.0.2.7:4380' } })).status()).toBe(403);
  const data = { create: { name: 'x', kind: 'home' } };
  expect(
    (await request.post('/api/sites', { data, headers: { origin: 'http://evil.example.net' } })).status(),
  ).toBe(403);
  // A page on another port of the same machine is another page.
  expect(
    (await request.post('/api/sites', { data, headers: { origin: 'http://127.0.0.1:9' } })).status(),
  ).toBe(403);
  const plain = await request.post('/api/sites', {
    data: 'hello',
    headers: { 'content-type': 'text/plain' },
  });
  expect(plain.status()).toBe(415);
  expect((await plain.json()).detail).toContain('send application/json');
  expect(plain.headers()['content-type']).toContain('application/problem+json');
});

test('refuses bodies that are too large, not JSON or of the wrong shape, naming field, value and remedy', async ({
  request,
}) => {
  const site = await newSite(request);
  const path = `/api/sites/${site}/changes`;
  const json = { 'content-type': 'application/json' };
  const large = await request.post('/api/sites', {
    data: Buffer.alloc(90 * 1024 * 1024, ' '),
    headers: json,
  });
  expect(large.status()).toBe(413);
  expect((await large.json()).detail).toContain('at most 72 MB are read here');
  for (const [body, status] of [
    ['{"base":', 400],
    ['', 400],
    [Buffer.from([0x7b, 0xff, 0xfe, 0x7d]), 400],
    ['['.repeat(100_000), 400],
    [`{"kind":${'['.repeat(5000)}${']'.repeat(5000)}}`, 422],
  ] as const)
    expect((await request.post(path, { data: Buffer.from(body), headers: json })).status()).toBe(status);
  const refused = async (fields: object) => {
    const response = await post(request, site, fields);
    expect([422, 409]).toContain(response.status());
    return ((await response.json()) as { detail: string }).detail;
  };
  expect(await refused({ base: 'one' })).toBe('base: “one” is not a number; write a number');
  expect(await refused({ operation: 'nosuch' })).toContain('There is no operation “nosuch”');
  expect(await refused({ input: { table: 'nosuch', id: 'x', set: {} } })).toMatch(
    /^table: “nosuch” is no choice here; write one of/,
  );
  expect(await refused({ operation: 'addSegment', input: { purpose: 'staff', nope: 1 } })).toContain(
    'there is no field “nope” here; leave it out',
  );
  expect(
    await refused({ kind: 'undo', undoes: 'nothing1', operation: undefined, input: undefined }),
  ).toContain('There is no change “nothing1” of yours to undo');
  const unknown = await request.get(`/api/sites/${site}/changes?since=x`);
  expect([unknown.status(), (await unknown.json()).detail]).toEqual([422, 'since: write a whole number']);
  expect((await request.get(`/api/sites/${site}/back?revision=99`)).status()).toBe(422);
  const name = { revision: 99, name: 'x', author: 'y' };
  expect((await request.post(`/api/sites/${site}/names`, { data: name })).status()).toBe(422);
});

test('takes no steps from outside: what is saved is what the operation says', async ({ request }) => {
  const site = await newSite(request);
  const steps = [{ table: 'site', id: 'site', before: {}, after: null }];
  const made = await post(request, site, { steps });
  expect(made.status()).toBe(422);
  expect((await made.json()).detail).toContain('there is no field “steps” here');
  const taken = await post(request, site, { operation: 'takeSteps', input: { label: 'mine', steps } });
  expect(taken.status()).toBe(422);
  expect((await taken.json()).detail).toContain('Steps are not taken from outside');
  const half = await post(request, site, rename('half \ud83d', 'Test yard'));
  expect(half.status()).toBe(422);
  expect((await request.get(`/api/sites/${site}/plan`)).status()).toBe(200);
});

test('unknown sites are 404 everywhere, and so are ids that are none', async ({ request }) => {
  for (const path of [
    'plan',
    'changes?since=0',
    'journal',
    'undo?browser=browser01',
    'back?revision=0',
    'exercise',
    'exercises',
    'export',
    'schedule',
    'ports',
    'rules',
    'ruleset?device=x',
  ])
    for (const id of ['nowhere', '%C3%A9t%C3%A9', 'Two%20words', 'x'.repeat(200)])
      expect((await request.get(`/api/sites/${id}/${path}`)).status(), path).toBe(404);
  expect((await request.delete('/api/sites/nowhere', { data: { name: 'x' } })).status()).toBe(404);
  expect((await request.patch('/api/sites/nowhere', { data: { archived: true } })).status()).toBe(404);
  expect((await request.get('/site/nowhere/schedule')).status()).toBe(404);
});

test('odd addresses and methods get a reason as problem details', async ({ request }) => {
  for (const [method, path, status] of [
    ['GET', '/api/nosuch', 404],
    ['PUT', '/api/sites', 405],
    ['POST', '/api/sites/x/plan', 405],
    ['GET', '/api/sites/%zz/plan', 400],
  ] as const) {
    const response = await request.fetch(path, { method });
    expect([path, response.status()]).toEqual([path, status]);
    expect(response.headers()['content-type']).toContain('application/problem+json');
  }
});

test('a change of a field that was changed meanwhile is 409; of another one it is saved beside it', async ({
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  const { plan } = await (await request.get(`/api/sites/${site}/plan`)).json();
  const { name } = plan.site[0];
  expect((await post(request, site, rename('First', name))).status()).toBe(200);
  const stale = await post(request, site, rename('Second', name));
  expect(stale.status()).toBe(409);
  expect((await stale.json()).detail).toContain(`was ${name} when you edited it and is First now`);
  const input = { table: 'site', id: 'site', set: { notes: 'n' }, seen: { notes: plan.site[0].notes } };
  const beside = await post(request, site, { input });
  expect(beside.status()).toBe(200);
  const saved = await beside.json();
  expect(saved).toMatchObject({ revision: 2, more: false });
  expect(saved.entries).toMatchObject([
    { revision: 1, author: 'Ada' },
    { revision: 2, steps: [{ table: 'site' }] },
  ]);
});

test('pages and answers carry what keeps others out', async ({ page, request }) => {
  const response = await request.get('/');
  const headers = response.headers();
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['content-security-policy']).not.toContain("script-src 'self' 'unsafe-inline'");
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect((await request.get('/api/sites')).headers()['cache-control']).toBe('no-store');
  // A page that tries runs no script that was written into it.
  await page.goto('/');
  const ran = await page.evaluate(() => {
    const script = document.createElement('script');
    script.textContent = 'window.ran = true';
    document.body.append(script);
    return 'ran' in window;
  });
  expect(ran).toBe(false);
});
