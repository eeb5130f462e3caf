import { cookiesOf, heldIn, mayAsk, onlyRun, onlySite, onlyText, ONLY } from './limits';

const paired = { site: 'abc', run: 'run00001' };

test.each([
  ['GET', '/site/abc/run?run=run00001'],
  ['GET', '/site/abc/run?_rsc=1'],
  ['HEAD', '/site/abc/run'],
  ['GET', '/_next/static/chunks/a-b_c.1.js'],
  ['GET', '/sw.js'],
  ['GET', '/api/events'],
  ['GET', '/api/sites/abc/plan'],
  ['GET', '/api/sites/abc/changes?since=0'],
  ['GET', '/api/sites/abc/log?since=0'],
  ['POST', '/api/sites/abc/log'],
  ['GET', '/api/sites/abc/photos?id=photo0001'],
  ['POST', '/api/sites/abc/photos'],
])('a phone may %s %s', (method, url) => {
  expect(mayAsk(paired, method, url)).toBe(true);
});

test.each([
  ['GET', '/'],
  ['GET', '/site/abc/gear'],
  ['GET', '/site/abcd/run?run=run00001'],
  ['GET', '/site/abc/run/../gear'],
  ['GET', '/site/abc/%72un/../gear'],
  ['GET', '//site/abc/run'],
  ['GET', 'https://elsewhere.example.net/site/abc/run'],
  ['GET', '/_next/image?url=/x'],
  ['GET', '/_next/static/../server/secret'],
  ['GET', '/api/sites'],
  ['GET', '/api/metrics'],
  ['GET', '/api/sites/other/plan'],
  ['GET', '/api/sites/abc/export'],
  ['POST', '/api/sites/abc/changes'],
  ['POST', '/api/sites/abc/pairings'],
  ['DELETE', '/api/sites/abc'],
  ['DELETE', '/api/sites/abc/pairings?run=run00001'],
  ['PATCH', '/api/sites/abc'],
  ['OPTIONS', '/api/sites/abc/log'],
])('a phone may not %s %s', (method, url) => {
  expect(mayAsk(paired, method, url)).toBe(false);
});

test('what a phone holds goes by a cookie that no script reads and no plain connection carries', () => {
  const secret = 'a'.repeat(30) + '-_';
  const [held, marker] = cookiesOf(secret);
  expect(held).toMatch(/^__Host-.*; Path=\/;.*; Secure; HttpOnly; SameSite=Lax$/);
  expect(marker).not.toContain(secret);
  const sent = [held, marker].map((cookie) => cookie!.split(';')[0]).join('; ');
  expect(heldIn(sent)).toBe(secret);
  expect(heldIn(`x${held!.split(';')[0]}`)).toBeNull();
  expect(heldIn(undefined)).toBeNull();
});

test('a request is marked with the site and run it may see', () => {
  const request = new Request('https://phone.invalid/', { headers: { [ONLY]: onlyText(paired) } });
  expect([onlySite(request), onlyRun(request)]).toEqual(['abc', 'run00001']);
  expect(onlyRun(new Request('https://phone.invalid/'))).toBeNull();
});
