import { readFileSync } from 'node:fs';
import type { BrowserContext, Page } from '@playwright/test';
import { demoSite, expect, open, test } from './site';

/** A picture as a camera would give it: larger than it is kept. */
const picture = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const canvas = new OffscreenCanvas(2400, 1200);
    const context = canvas.getContext('2d')!;
    context.fillStyle = '#884';
    context.fillRect(0, 0, 2400, 1200);
    const blob = await canvas.convertToBlob({ type: 'image/png' });
    return [...new Uint8Array(await blob.arrayBuffer())];
  });

async function begin(page: Page, site: string, name: string): Promise<string> {
  await open(page, site, 'commission');
  await page.getByRole('button', { name: 'Start a run' }).click();
  const dialog = page.getByRole('dialog', { name: 'Start a run' });
  await dialog.getByLabel('Name').fill(name);
  await page.keyboard.press('Enter');
  await expect(now(page)).toBeVisible();
  return page.url();
}
const now = (page: Page) => page.getByRole('region', { name: 'What to do now' });
const done = (page: Page) => page.getByRole('progressbar', { name: 'Settings done' });
const entries = (page: Page) =>
  page.getByRole('list', { name: 'Entries, newest first' }).getByRole('listitem');
async function tick(page: Page): Promise<void> {
  const before = await entries(page).count();
  const button = now(page).getByRole('button', { name: /^(I sit there|Done and seen)$/ });
  await button.click();
  await expect(entries(page)).toHaveCount(before + 1);
  await expect(button).toBeEnabled();
}

test('a run says where to sit and what to do; what was done, seen and left out is kept with who and when', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission');
  await page.getByRole('button', { name: 'Start a run' }).click();
  const dialog = page.getByRole('dialog', { name: 'Start a run' });
  await dialog.getByLabel('Name').fill('');
  await page.keyboard.press('Enter');
  await expect(dialog.getByRole('alert')).toContainText('the name is empty');
  await dialog.getByLabel('Name').fill('cellar');
  await page.keyboard.press('Enter');
  await expect(now(page)).toContainText('Sit down at');
  await expect(
    now(page).getByRole('img', { name: 'The face of sw-cellar with port 9 marked' }),
  ).toBeVisible();
  // Pressed twice, the second time as soon as the page has heard the first: it is said once.
  await now(page)
    .getByRole('button', { name: 'I sit there' })
    .evaluate(async (button: HTMLButtonElement) => {
      button.click();
      for (let turn = 0; turn < 20; turn++) await null;
      button.click();
    });
  await expect(now(page)).toContainText('Make VLAN 10, 20, 30, 40, 50, 60');
  await expect(now(page)).toContainText('They stand in its list of VLANs.');
  await expect(entries(page)).toHaveCount(1);
  await tick(page);
  await expect(done(page)).toHaveAttribute('aria-valuenow', '1');

  // What differs is written down, opens a defect, and is still to be done.
  const does = await now(page).getByRole('paragraph').nth(1).textContent();
  await now(page).getByRole('button', { name: 'It differs' }).click();
  const write = now(page).getByRole('button', { name: 'Write it down' });
  await expect(write).toBeDisabled();
  await now(page).getByLabel('What do you see?').fill('VLAN 60 is refused: it knows 5 at most');
  await now(page).getByLabel('Reading').fill('5 of 5');
  await write.click();
  await expect(now(page).getByRole('note')).toContainText('Ada saw something else');
  await expect(now(page)).toContainText(does!);
  await expect(done(page)).toHaveAttribute('aria-valuenow', '1');

  await now(page).getByRole('button', { name: 'Leave it out' }).click();
  await now(page).getByLabel('Why is it left out?').fill('another box comes on Friday');
  await now(page).getByRole('button', { name: 'Leave it out' }).click();
  await expect(now(page)).not.toContainText(does!);
  await page.getByRole('button', { name: 'Take the last one back' }).click();
  await expect(now(page)).toContainText(does!);

  await page.getByRole('link', { name: 'Back to the logbook' }).click();
  await expect(
    page.getByRole('table', { name: 'Runs' }).getByRole('row', { name: /cellar.*Ada.*under way/ }),
  ).toBeVisible();
  const book = page.getByRole('table', { name: 'Logbook' });
  await expect(book).toContainText('takes back “left out');
  const defects = page.getByRole('table', { name: 'Defects' });
  await expect(defects).toContainText('VLAN 60 is refused');
  await defects.getByRole('button', { name: /^mended:/ }).click();
  await page.getByLabel('How?').fill('firmware renewed');
  await page.getByRole('button', { name: 'It is mended' }).click();
  await expect(defects).toContainText('firmware renewed');
  await expect(page.getByRole('heading', { name: 'Defects: 0 open' })).toBeVisible();
});

test('a photo is scaled down, hangs on its step, and is there after a reload; what is no picture is refused', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await begin(page, site, 'photos');
  await tick(page);
  await now(page)
    .getByRole('button', { name: /^Note, reading, photo/ })
    .click();
  const input = now(page).getByLabel('Photo', { exact: true });
  await input.setInputFiles({ name: 'list.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(now(page).getByRole('alert')).toContainText(
    '“list.txt” is no picture that this browser reads',
  );
  await now(page).getByLabel('Note').fill('seen on the page of the box');
  await input.setInputFiles({
    name: 'rack.png',
    mimeType: 'image/png',
    buffer: Buffer.from(await picture(page)),
  });
  await expect(now(page).getByRole('img', { name: 'Photo 1' })).toBeVisible();
  await tick(page);
  await expect(entries(page).first()).toContainText('seen on the page of the box');
  await expect(page.getByText('Everything is sent.')).toBeAttached();
  await page.reload();
  const photo = entries(page).first().getByRole('img', { name: 'Photo 1' });
  await expect(photo).toBeVisible();
  await expect
    .poll(() => photo.evaluate((image: HTMLImageElement) => [image.naturalWidth, image.naturalHeight]))
    .toEqual([1600, 800]);
  expect(await photo.getAttribute('src')).toContain(`/api/sites/${site}/photos?id=`);
});

test('two in one run see each other’s ticks, and neither loses what they type', async ({
  page,
  browser,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  const url = await begin(page, site, 'both');
  const other: BrowserContext = await browser.newContext();
  await other.addInitScript(() => localStorage.setItem('dianome.author', 'Bo'));
  const theirs = await other.newPage();
  await theirs.goto(url);
  await expect(now(theirs)).toContainText('Sit down at');
  await tick(page);
  await expect(entries(theirs)).toHaveCount(1);
  await now(page)
    .getByRole('button', { name: /^Note, reading, photo/ })
    .click();
  await now(page).getByLabel('Note').fill('half a no');
  await tick(theirs);
  await expect(entries(page)).toHaveCount(2);
  await expect(entries(page).first()).toContainText('Bo');
  await expect(now(page).getByLabel('Note')).toHaveValue('half a no');
  await other.close();
});

test.describe('without a network', () => {
  test.use({ serviceWorkers: 'allow' });

  test('a run goes on through closing and opening again, and is sent later in order', async ({
    page,
    context,
    request,
  }) => {
    const site = await demoSite(request, '1-row-house');
    const url = await begin(page, site, 'cupboard');
    await tick(page);
    await expect(page.getByText('Everything is sent.')).toBeAttached();
    await expect
      .poll(() =>
        page.evaluate(
          async (path) => (await caches.match(path, { ignoreSearch: true })) !== undefined,
          `/site/${site}/run`,
        ),
      )
      .toBe(true);
    await context.setOffline(true);
    await tick(page);
    await tick(page);
    await expect(page.getByRole('status').filter({ hasText: 'No network' })).toContainText(
      'No network. Go on: 2 entries are kept here and sent later.',
    );
    const asks = await now(page).textContent();
    await page.close();
    const later = await context.newPage();
    await later.goto(url);
    await expect(entries(later)).toHaveCount(3);
    await expect(entries(later).first()).toContainText('not sent yet');
    expect(await now(later).textContent()).toBe(asks);
    await tick(later);
    await context.setOffline(false);
    await expect(later.getByText('Everything is sent.')).toBeAttached();
    const log = (await (await request.get(`/api/sites/${site}/log?since=0`)).json()) as {
      entries: { seq: number; id: string; body: { kind: string; run?: string; steps?: object[] } }[];
    };
    expect(log.entries.map(({ body }) => body.kind)).toEqual(['run', 'sit', 'result', 'result', 'result']);
    expect(new Set(log.entries.map(({ body }) => JSON.stringify(body.steps))).size).toBe(4);
  });
});

test('the plan changes under a run: what was done stays, what is left is worked out from the new plan', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  const url = await begin(page, site, 'under way');
  await tick(page);
  await tick(page);
  await open(page, site, 'segments');
  await page.getByLabel('VLAN id of Family').fill('21');
  await page.keyboard.press('Enter');
  await page.goto(url);
  await expect(
    page.getByRole('note').filter({ hasText: 'The plan has changed since the run began' }),
  ).toBeVisible();
  await expect(entries(page)).toHaveCount(2);
  await expect(now(page)).toContainText('21');
  await expect(done(page)).toHaveAttribute('aria-valuenow', '1');
});

test('installer and customer sign; then the revision is as built', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=log');
  const signed = page.getByRole('region', { name: /^Sign-off/ });
  await expect(signed).toContainText('Not signed by both yet.');
  for (const [role, name] of [
    ['installer', 'Ada'],
    ['customer', 'Mx Weir'],
  ] as const) {
    await signed.getByRole('button', { name: `Sign as ${role}` }).click();
    const form = page.getByRole('form', { name: `Sign as ${role}` });
    await form.getByRole('button', { name: 'Sign', exact: true }).click();
    await expect(form.getByRole('alert')).toHaveText('The name is empty; write the name of who signs.');
    await form.getByLabel('Name').fill(name);
    await form.getByRole('button', { name: 'Sign', exact: true }).click();
    await expect(form.getByRole('alert')).toContainText('The signature is empty');
    const pad = form.getByRole('img', { name: 'Draw the signature here' });
    await pad.scrollIntoViewIfNeeded();
    const box = (await pad.boundingBox())!;
    await page.mouse.move(box.x + 40, box.y + 60);
    await page.mouse.down();
    for (let at = 1; at <= 10; at++) await page.mouse.move(box.x + 40 + at * 15, box.y + 60 + (at % 2) * 30);
    await page.mouse.up();
    await form.getByRole('button', { name: 'Sign', exact: true }).click();
    await expect(signed.getByRole('img', { name: `Signature of ${name}` })).toBeVisible();
  }
  await expect(signed).toContainText('Change 0 is as built: both signed it.');
  await expect(page.getByRole('table', { name: 'Logbook' })).toContainText('Mx Weir signed as customer');

  // The plan goes on: what has changed since is told beside what was built.
  await open(page, site, 'segments');
  await page.getByLabel('Name of Family').fill('Household');
  await page.keyboard.press('Enter');
  await expect(page.getByText('change 1 saved')).toBeVisible();
  await open(page, site, 'commission?list=log');
  await expect(signed).toContainText('the plan has gone on to change 1 since.');
  await signed.getByRole('button', { name: 'What has changed since' }).click();
  await expect(signed.getByRole('region', { name: 'Changed since it was built' })).toContainText('Household');
});

test('the logbook is taken along as a table', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=log');
  await page.getByRole('button', { name: 'Write something down' }).click();
  const form = page.getByRole('form', { name: 'Write something down' });
  await form.getByLabel('What was done, measured or seen?').fill('fan is loud, "very"');
  await form.getByRole('button', { name: 'Write it down' }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Download as CSV' }).click();
  const text = readFileSync(await (await saved).path(), 'utf8');
  expect(text).toContain('note,,"fan is loud, ""very""",');
});

test('something measured is written down about a box', async ({ page, request }) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'commission?list=log');
  await page.getByRole('button', { name: 'Write something down' }).click();
  const form = page.getByRole('form', { name: 'Write something down' });
  await form.getByRole('button', { name: 'Write it down' }).click();
  await expect(form.getByRole('alert')).toHaveText('What is to be written down is empty; write a few words.');
  await form.getByLabel('What was done, measured or seen?').fill('fan is loud');
  await form.getByLabel('Reading').fill('48 dB(A)');
  await form.getByRole('combobox', { name: 'About' }).click();
  await page.getByRole('option', { name: 'gw-1' }).click();
  await form.getByRole('button', { name: 'Write it down' }).click();
  const row = page.getByRole('table', { name: 'Logbook' }).getByRole('row').nth(1);
  await expect(row).toContainText('gw-1: fan is loud');
  await expect(row).toContainText('48 dB(A)');
  await expect(row).toContainText('Ada');
});

test('the tests of a site are made from place to place, and what comes of each is written down', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission?list=tests');
  const sums = page.getByRole('status').filter({ hasText: / tests, \d+ places:/ });
  await expect(sums).toContainText('0 as expected, 0 otherwise');
  const rack = page.getByRole('list', { name: 'Tests at sw-rack 9' });
  await rack.getByRole('button', { name: /^As expected: Plug in a laptop/ }).click();
  await expect(rack.getByRole('listitem').first()).toContainText('as expected, Ada');
  await rack.getByRole('button', { name: /^Differs: Open the page of the gateway/ }).click();
  const form = page.getByRole('form', { name: /^What differs: Open the page of the gateway/ });
  await form.getByLabel('What comes of it?').fill('its page opens');
  await form.getByRole('button', { name: 'It differs' }).click();
  await expect(sums).toContainText('1 as expected, 1 otherwise');
  await expect(rack).toContainText('its page opens');
  await expect(page.getByText('sw-rack 5-8 as 9')).toBeVisible();
  await page.reload();
  await expect(sums).toContainText('1 as expected, 1 otherwise');
  await page.getByRole('radio', { name: 'logbook' }).click();
  await expect(page.getByRole('table', { name: 'Logbook' })).toContainText(
    'differs at sw-rack 9: Open the page of the gateway (tcp 443)',
  );
});

test('when a test differs, the places to look at are ranked, and the next test tells them apart', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'commission?list=tests');
  const rack = page.getByRole('list', { name: 'Tests at sw-rack 9' });
  const differs = async (landed: string | null) => {
    await rack.getByRole('button', { name: /^Differs: Plug in a laptop/ }).click();
    const form = page.getByRole('form', { name: /^What differs: Plug in a laptop/ });
    if (landed) {
      await form.getByRole('combobox', { name: 'Where do you land?' }).click();
      await page.getByRole('option', { name: landed, exact: true }).click();
    }
    await form.getByRole('button', { name: 'It differs' }).click();
  };
  await differs(null);
  const causes = page.getByRole('region', { name: 'Likely causes' });
  const places = causes.getByRole('list', { name: 'What may be wrong, likeliest first' });
  await expect(places).toContainText('Look at the socket sw-rack 9.');
  const before = await places.getByRole('listitem').count();
  const next = causes.getByRole('list', { name: 'The next test' });
  const first = await next.getByRole('listitem').first().textContent();
  await next.getByRole('button', { name: /^As expected: / }).click();
  await expect(next.filter({ hasText: first! })).toHaveCount(0);
  await expect(causes).toHaveAttribute('aria-busy', 'false');
  expect(await places.getByRole('listitem').count()).toBeLessThanOrEqual(before);

  // Where one lands says more: in the wrong segment it is the socket, with an address nobody planned it is a second server.
  await differs('in Waiting room');
  await expect(rack.getByRole('listitem').first()).toContainText('in Waiting room');
  await expect(places.getByRole('listitem').first()).toContainText(
    'sw-rack 9 was put into VLAN 80 Waiting room instead of VLAN 30 Servers.',
  );
  await differs('an address of a network that is not planned');
  await expect(places.getByRole('listitem').first()).toContainText('A second DHCP server answers in Servers');
  await page.reload();
  await expect(places.getByRole('listitem').first()).toContainText('A second DHCP server answers in Servers');
});

test('a run worked off to its end is ended, and its boxes are recorded as planned', async ({
  page,
  request,
}) => {
  test.slow();
  const site = await demoSite(request, '1-row-house');
  await begin(page, site, 'all of it');
  await now(page).getByLabel('Your adapter has set now').fill('192.0.2.20/24, gateway 192.0.2.1');
  const end = now(page).getByRole('button', { name: 'End the run' });
  const next = now(page).getByRole('button', { name: /^(I sit there|Done and seen)$/ });
  for (let made = 1; ; made++) {
    await expect(end.or(next)).toBeVisible();
    if (await end.isVisible()) break;
    await next.click();
    await expect(entries(page)).toHaveCount(made);
    await expect(next.or(end)).toBeEnabled();
  }
  await expect(now(page)).toContainText('stays open for you');
  await expect(now(page)).toContainText(
    'Put back what your adapter had set: 192.0.2.20/24, gateway 192.0.2.1, and switch wireless on again.',
  );
  await now(page).getByLabel('Note').fill('works');
  await end.click();
  await expect(page.getByText('The run is ended.')).toBeVisible();
  const record = now(page).getByRole('button', { name: /^Record \d boxes as planned$/ });
  await record.click();
  await expect(record).toBeHidden();
  await open(page, site, 'commission?list=boxes');
  await expect(page.getByRole('combobox', { name: 'ap-ground now' })).toContainText('as planned');
  // A socket of it was left open.
  await expect(page.getByRole('combobox', { name: 'sw-cellar now' })).toContainText('as it comes');
});
