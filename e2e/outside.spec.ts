import { demoSite, expect, newSite, test } from './site';

/** What the server answers to input no page of ours would send: always a reason, never a 500. */
test('refuses other hosts, other origins and other content types', async ({ request }) => {
  expect((await request.get('/api/sites', { headers: { host: 'evil.example.net' } })).status()).toBe(403);
  expect((await request.get('/', { headers: { host: '192.0.2.7:4380' } })).status()).toBe(403);
  const data = { create: { name: 'x', kind: 'home' } };
  expect(
    (await request.post('/api/sites', { data, headers: { origin: 'http://evil.example.net' } })).status(),
  ).toBe(403);
  const plain = await request.post('/api/sites', {
    data: 'hello',
    headers: { 'content-type': 'text/plain' },
  });
  expect(plain.status()).toBe(415);
  expect((await plain.json()).detail).toContain('send application/json');
  expect(plain.headers()['content-type']).toContain('application/problem+json');
});

test('refuses bodies that are too large, not JSON or of the wrong shape, with the path', async ({
  request,
}) => {
  const site = await newSite(request);
  const path = `/api/sites/${site}/changes`;
  const json = { 'content-type': 'application/json' };
  expect(
    (await request.post('/api/sites', { data: Buffer.alloc(50 * 1024 * 1024, ' '), headers: json })).status(),
  ).toBe(413);
  expect((await request.post(path, { data: Buffer.from('{"base":'), headers: json })).status()).toBe(400);
  const shape = await request.post(path, { data: { base: 'one' } });
  expect(shape.status()).toBe(422);
  expect((await shape.json()).path).toEqual(['base']);
  const change = { base: 0, seed: 'abcdef123', label: 'x', operation: 'edit', input: {}, author: 'Ada' };
  const lan = { table: 'lan', id: 'q', before: null, after: { id: 'q', name: '' } };
  const bad = await request.post(path, { data: { ...change, steps: [lan] } });
  expect(bad.status()).toBe(422);
  expect((await bad.json()).detail).toContain('The LAN’s name is empty');
  const other = await request.post(path, {
    data: { ...change, steps: [{ ...lan, after: { id: 'r', name: 'n' } }] },
  });
  expect((await other.json()).detail).toContain('not the step’s id');
  const dangling = {
    table: 'vlan',
    id: 'q',
    before: null,
    after: {
      id: 'q',
      lan: 'nowhere',
      vid: 7,
      code: 'QQ',
      name: 'n',
      colour: '#112233',
      purpose: 'staff',
      internet: true,
      devices: 1,
      growth: 0,
      transient: null,
      rank: 'a0',
    },
  };
  const broken = await request.post(path, { data: { ...change, steps: [dangling] } });
  expect(broken.status()).toBe(422);
  expect((await broken.json()).title).toBe('Broken reference');
  expect((await request.get(`/api/sites/${site}/changes?since=x`)).status()).toBe(422);
  expect((await request.get(`/api/sites/${site}/back?revision=99`)).status()).toBe(422);
  expect(
    (
      await request.post(`/api/sites/${site}/names`, { data: { revision: 99, name: 'x', author: 'y' } })
    ).status(),
  ).toBe(422);
});

test('unknown sites are 404 everywhere', async ({ request }) => {
  for (const path of [
    'plan',
    'changes',
    'journal',
    'undo?author=Ada',
    'back',
    'events',
    'export',
    'schedule',
  ])
    expect((await request.get(`/api/sites/nowhere/${path}`)).status(), path).toBe(404);
  expect((await request.delete('/api/sites/nowhere', { data: { name: 'x' } })).status()).toBe(404);
  expect((await request.patch('/api/sites/nowhere', { data: { archived: true } })).status()).toBe(404);
  expect((await request.get('/site/nowhere/schedule')).status()).toBe(404);
});

test('a stale revision is 409 with the changes between', async ({ request }) => {
  const site = await demoSite(request, '1-row-house');
  const { plan } = await (await request.get(`/api/sites/${site}/plan`)).json();
  const record = plan.site[0];
  const change = (base: number, seed: string, before: object, name: string) => ({
    base,
    seed,
    label: name,
    operation: 'edit',
    input: {},
    author: 'Ada',
    steps: [{ table: 'site', id: 'site', before, after: { ...before, name } }],
  });
  expect(
    (
      await request.post(`/api/sites/${site}/changes`, { data: change(0, 'first01', record, 'First') })
    ).status(),
  ).toBe(200);
  const stale = await request.post(`/api/sites/${site}/changes`, {
    data: change(0, 'second1', record, 'Second'),
  });
  expect(stale.status()).toBe(409);
  const problem = await stale.json();
  expect(problem.revision).toBe(1);
  expect(problem.between).toMatchObject([{ revision: 1, label: 'First', author: 'Ada' }]);
  const misfit = await request.post(`/api/sites/${site}/changes`, {
    data: change(1, 'third01', record, 'Third'),
  });
  expect(misfit.status()).toBe(422);
  expect((await misfit.json()).detail).toContain('is not as this change expects');
});
