import type { Page } from '@playwright/test';
import { atChange, demoSite, expect, findSite, open, saved, test } from './site';

const toExercises = (page: Page) => page.getByRole('tab', { name: 'Faults to find' }).click();
const setting = (page: Page) => page.getByRole('region', { name: 'Faults to find' });
const exercise = (page: Page) => page.getByRole('region', { name: 'Exercise', exact: true });
const report = (page: Page) => page.getByRole('region', { name: 'Report', exact: true });

/** The number of an exercise in the clinic with one easy fault: the port of the server is in another segment. */
const PORT_ASTRAY = '85';

async function setOne(page: Page, number: string): Promise<void> {
  await setting(page).getByLabel('Number').fill(number);
  await setting(page).getByRole('button', { name: 'Set the exercise' }).click();
  await expect(exercise(page).getByRole('heading', { name: `Exercise ${number}` })).toBeVisible();
}

test('a fault is put into a copy, found and mended, and the report says what could have told of it', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'rehearse');
  await toExercises(page);
  await setting(page).getByLabel('Number').fill('many');
  await setting(page).getByRole('button', { name: 'Set the exercise' }).click();
  await expect(setting(page).getByRole('alert')).toContainText(
    'The number is “many”; write a whole number from 1 to 999999.',
  );
  await expect(setting(page).getByLabel('Number')).toHaveValue('many');
  await setOne(page, PORT_ASTRAY);

  // The complaint is all there is: it follows to every page, and findings are put away.
  const complaint = '“records does not answer anybody, since the switch was changed.”';
  await expect(exercise(page)).toContainText(complaint);
  await expect(exercise(page)).toContainText('still so');
  await expect(page.getByRole('region', { name: 'Findings here' })).toContainText('Findings are put away');
  await page.getByRole('link', { name: 'Findings', exact: true }).click();
  await expect(page.getByRole('main')).toContainText('Findings are put away until the exercise is handed in');
  await expect(page.getByRole('link', { name: new RegExp(`^Exercise ${PORT_ASTRAY}`) })).toContainText(
    complaint,
  );
  await page.getByRole('link', { name: new RegExp(`^Exercise ${PORT_ASTRAY}`) }).click();

  await exercise(page)
    .getByRole('button', { name: /^A hint for 1 point/ })
    .click();
  await expect(exercise(page).getByRole('list', { name: 'Hints on complaint 1' })).toContainText(
    'It is to be seen under Gear & ports.',
  );
  await expect(exercise(page)).toContainText('9 of 10 points left');
  const bar = page.getByRole('region', { name: 'Probe', exact: true });
  await bar.getByLabel('from').fill('records');
  await bar.getByLabel('to', { exact: true }).fill('gateway');
  await expect(bar).toContainText('Stopped at records');

  await page.getByRole('link', { name: /Gear & ports/ }).click();
  await page.getByRole('option', { name: /^sw-rack 5:/ }).click();
  await page.keyboard.press('a');
  await page.keyboard.type('30');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(page.getByTestId('last-change')).not.toContainText('finding');
  await expect(bar).toContainText('Delivered');
  await page.getByRole('link', { name: new RegExp(`^Exercise ${PORT_ASTRAY}`) }).click();
  await exercise(page).getByRole('button', { name: 'Ask them again' }).click();
  await expect(exercise(page)).toContainText('no longer so');

  await exercise(page).getByRole('button', { name: 'Hand in' }).click();
  const dialog = page.getByRole('dialog', { name: 'Hand in' });
  await expect(dialog).toContainText('Nobody complained any more when last asked.');
  await dialog.getByRole('button', { name: 'Hand it in' }).click();
  await expect(report(page)).toContainText('9 of 10 points');
  await expect(report(page)).toContainText('sw-rack 5 was put into VLAN 40');
  await expect(report(page)).toContainText('mended: it is as it was');
  const told = report(page).getByRole('table', { name: 'What could have told of fault 1' });
  await expect(told.getByRole('row', { name: /^Probe, records to the gateway, ping/ })).toContainText(
    'Delivered: the gateway answers',
  );
  await expect(told.getByRole('row', { name: /^Gear & ports, sw-rack 5/ })).toContainText('access 30');
  await expect(report(page)).toContainText('Findings would have said:');
  await expect(page.getByRole('region', { name: 'Findings here' })).not.toContainText('put away');

  // The original was never touched, and knows what became of it; the same number gives the same again.
  await report(page)
    .getByRole('link', { name: /Veterinary|clinic/i })
    .click();
  await atChange(page, 0);
  await expect(setting(page).getByRole('row', { name: new RegExp(`^${PORT_ASTRAY}`) })).toContainText(
    '9 of 10 points',
  );
  await setting(page).getByRole('link', { name: PORT_ASTRAY }).click();
  await report(page).getByRole('button', { name: 'Set it again' }).click();
  await expect(exercise(page)).toContainText(complaint);
  await expect(exercise(page)).toContainText('10 of 10 points left');
});

test('what is handed in unmended earns nothing, and cannot be handed in again', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  const made = await request.post(`/api/sites/${site}/exercises`, {
    data: { seed: Number(PORT_ASTRAY), level: 1, count: 1, learner: 'Ada' },
  });
  const { id } = (await made.json()) as { id: string };
  const list = (await (await request.get(`/api/sites?named=exercise ${PORT_ASTRAY}`)).json()) as {
    sites: { id: string; findings: object | null; exercise: string | null }[];
  };
  expect(list.sites.find((item) => item.id === id)).toMatchObject({ findings: null, exercise: 'open' });
  expect(await (await request.get(`/api/sites/${id}/exercise`)).text()).not.toContain('VLAN 40');

  await page.goto('/');
  const row = page
    .getByRole('row', { name: new RegExp(`exercise ${PORT_ASTRAY}\\s*exercise, open`) })
    .first();
  await findSite(page, `exercise ${PORT_ASTRAY}`);
  await expect(row).toContainText('put away');
  await page.goto(`/site/${id}/rehearse?view=exercise`);
  for (const points of [1, 2, 3, 4])
    await exercise(page)
      .getByRole('button', { name: new RegExp(`^A hint for ${points} point`) })
      .click();
  await expect(exercise(page)).toContainText('sw-rack 5 was put into VLAN 40');
  await expect(exercise(page)).toContainText('0 of 10 points left');
  await page.reload();
  await expect(exercise(page)).toContainText('0 of 10 points left');

  await exercise(page).getByRole('button', { name: 'Hand in' }).click();
  await expect(page.getByRole('dialog')).toContainText('one complaint still stood');
  await page.getByRole('button', { name: 'Hand it in' }).click();
  await expect(report(page)).toContainText('0 of 10 points');
  await expect(report(page)).toContainText('not mended');

  const again = await request.post(`/api/sites/${id}/exercise/report`, { data: { revision: 0 } });
  expect(again.status()).toBe(409);
  expect(((await again.json()) as { detail: string }).detail).toContain('was handed in');
  const hint = await request.post(`/api/sites/${id}/exercise/hints`, { data: { fault: 0 } });
  expect(hint.status()).toBe(409);
  const none = await request.post(`/api/sites/${site}/exercise/report`, { data: { revision: 0 } });
  expect(none.status()).toBe(404);
});

test('an exercise that a site is too small for is refused in plain words', async ({ page, request }) => {
  const made = await request.post('/api/sites', { data: { create: { name: 'Bare yard', kind: 'home' } } });
  const { id } = (await made.json()) as { id: string };
  await open(page, id, 'rehearse');
  await toExercises(page);
  await setting(page).getByRole('radio', { name: 'hard' }).click();
  await setting(page).getByRole('radio', { name: '3 faults' }).click();
  await setting(page).getByRole('button', { name: 'Set the exercise' }).click();
  await expect(setting(page).getByRole('alert')).toContainText(
    'In this site no fault of this difficulty (hard) would be noticed by anybody',
  );
});

test('drawing an exercise can be stopped, and no copy is left', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'rehearse');
  await toExercises(page);
  let reached: () => void;
  const underWay = new Promise<void>((resolve) => (reached = resolve));
  await page.route('**/exercises', (route) =>
    route.request().method() === 'POST' ? reached() : route.continue(),
  );
  await setting(page).getByRole('button', { name: 'Set the exercise' }).click();
  await underWay;
  await setting(page).getByRole('button', { name: 'Stop' }).click();
  await expect(setting(page).getByRole('button', { name: 'Set the exercise' })).toBeEnabled();
  await expect(setting(page).getByRole('alert')).toHaveCount(0);
  await expect(page.getByRole('table', { name: 'Exercises of this site' })).toHaveCount(0);
  await page.unroute('**/exercises');
  await setOne(page, PORT_ASTRAY);
});

test('how far the drawing has come is told line by line to who accepts lines', async ({ request }) => {
  const site = await demoSite(request, '2-clinic');
  const response = await request.post(`/api/sites/${site}/exercises`, {
    data: { seed: 7, level: 2, count: 2, learner: 'Ada' },
    headers: { accept: 'application/x-ndjson' },
  });
  const lines = (await response.text())
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line));
  const told = lines.slice(0, -1).map(({ progress }) => progress);
  expect(told.length).toBeGreaterThan(1);
  expect(told.map(({ done }) => done)).toEqual(told.map((_, at) => at + 1));
  expect(told.at(-1).done).toBeLessThanOrEqual(told.at(-1).of);
  expect(lines.at(-1).answer.id).toMatch(/^[a-z0-9]{12}$/);
});

test('while an exercise is drawn a bar says how many places were tried', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  // Everything comes as from the server, but the end of it waits until the bar was looked at.
  let looked: () => void = () => {};
  const end = new Promise<void>((resolve) => (looked = resolve));
  await page.exposeFunction('untilLooked', () => end);
  await page.addInitScript(() => {
    const { fetch } = window;
    window.fetch = async (...asked) => {
      const response = await fetch(...asked);
      if (!response.headers.get('content-type')?.includes('ndjson')) return response;
      const held = new TransformStream<Uint8Array, Uint8Array>({
        async transform(chunk, to) {
          if (new TextDecoder().decode(chunk).includes('"answer"'))
            await (window as unknown as { untilLooked: () => Promise<void> }).untilLooked();
          to.enqueue(chunk);
        },
      });
      return new Response(response.body!.pipeThrough(held), response);
    };
  });
  await open(page, site, 'rehearse');
  await toExercises(page);
  await setting(page).getByRole('button', { name: 'Set the exercise' }).click();
  const bar = setting(page).getByRole('progressbar', { name: 'Places for a fault tried' });
  await expect(bar).toHaveAttribute('aria-valuenow', /^[1-9]/);
  looked();
  await expect(exercise(page)).toBeVisible();
});
