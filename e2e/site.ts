import { readFileSync } from 'node:fs';
import path from 'node:path';
import { type APIRequestContext, type Locator, type Page, expect, test as base } from '@playwright/test';

/** A browser that has said who works there, so that no test begins at the question. */
export const test = base.extend<{ author: string }>({
  author: ['Ada', { option: true }],
  context: async ({ context, author }, provide) => {
    await context.addInitScript((name) => localStorage.setItem('dianome.author', name), author);
    await provide(context);
  },
});
export { expect };

const demo = (name: string) => readFileSync(path.join(process.cwd(), 'demo', name), 'utf8');

async function post(request: APIRequestContext, body: unknown): Promise<string> {
  const response = await request.post('/api/sites', { data: body });
  expect(response.status()).toBe(201);
  return ((await response.json()) as { id: string }).id;
}

type Demo = '1-row-house' | '2-clinic' | '3-creamery' | '4-library';
/** A site of its own for one test: one of the demo sites, or a new empty one. */
export const demoSite = (request: APIRequestContext, name: Demo) =>
  post(request, { file: demo(`${name}.json`) });
/** A demo site whose boxes are all set like this. */
export function demoWithBoxes(request: APIRequestContext, name: Demo, fields: object): Promise<string> {
  const file = JSON.parse(demo(`${name}.json`)) as { plan: { box: object[] } };
  const box = file.plan.box.map((one) => ({ ...one, ...fields }));
  return post(request, { file: JSON.stringify({ ...file, plan: { ...file.plan, box } }) });
}
export const newSite = (request: APIRequestContext, fields: object = {}) =>
  post(request, { create: { name: 'Test yard', kind: 'office', ...fields } });

export async function open(page: Page, site: string, station = 'segments'): Promise<void> {
  await page.goto(`/site/${site}/${station}`);
  await expect(page.getByRole('status').filter({ hasText: /change \d+ saved/ })).toBeVisible();
}

/** Opens a new site and adds a segment for staff to it, as its first change. */
export async function openWithStaff(page: Page, request: APIRequestContext): Promise<string> {
  const site = await newSite(request);
  await open(page, site);
  await page.keyboard.press('+');
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: /Add it/ })).toBeFocused();
  await page.keyboard.press('Enter');
  await atChange(page, 1);
  return site;
}

/** Waits until the server has confirmed everything, then says at which change the plan is. */
export async function saved(page: Page): Promise<number> {
  const status = page.getByRole('status').filter({ hasText: /^change \d+ saved$/ });
  await expect(status).toBeVisible();
  return Number(/\d+/.exec((await status.textContent())!)![0]);
}

/** Types into an in-place field and commits with Enter. */
export async function fill(page: Page | Locator, label: string, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  await field.press('Enter');
}

/** Goes on until the plan is at this change, saved. */
export const atChange = (page: Page, revision: number) =>
  expect(page.getByRole('status').filter({ hasText: `change ${revision} saved` })).toBeVisible();

/** Chooses one of a list, by its value or by what it says. */
export async function choose(list: Locator, option: string | { readonly label: string }): Promise<void> {
  await list.click();
  const page = list.page();
  const { label } = typeof option === 'string' ? { label: option } : option;
  const item = page.getByRole('listbox').getByRole('option', { name: label, exact: true });
  await (
    typeof option === 'string' ? item.or(page.locator(`[data-value="${option}"]`)).first() : item
  ).click();
}

/** Opens fields that are behind a line; the choice is kept, so once is enough. */
export const unfold = (page: Page, title: string): Promise<void> =>
  page.getByRole('button', { name: new RegExp(`^${title}`), expanded: false }).click();

/** Types a name into the list of sites, in which other tests' sites stand too. */
export const findSite = (page: Page, name: string): Promise<void> =>
  page.getByLabel('Find a site by its name').fill(name);
