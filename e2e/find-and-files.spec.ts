import { readFile, writeFile } from 'node:fs/promises';
import { VERSION } from '../src/core/formats';
import { demoSite, expect, newSite, open, saved, test, unfold } from './site';

test('find goes to an address, a MAC in another spelling, a VLAN, a name; in all sites too', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site);
  const find = page.getByRole('combobox', { name: 'Find' });
  await page.keyboard.press('/');
  await expect(find).toBeFocused();
  await find.fill('10.20.50.12');
  await expect(page.getByRole('option').first()).toContainText('10.20.50.12 kennel-cam-03');
  await find.press('Enter');
  await expect(page).toHaveURL(/addresses\?vlan=\w+&address=\w+$/);
  await expect(page.getByRole('heading', { name: '50 CM kennel-cam-03' })).toBeVisible();

  await find.fill('0000.5e00.5300');
  await expect(page.getByRole('option').first()).toContainText('sw-rack');
  await find.fill('medical');
  await find.press('Enter');
  await expect(page).toHaveURL(/segments\?vlan=\w+$/);
  await expect(page.getByRole('heading', { name: '60 MD Medical devices' })).toBeVisible();
  await find.fill('10.20.70.0/24');
  await expect(page.getByRole('option').first()).toContainText('70 KC Kennel climate');
  await find.fill('pasteuriser');
  await expect(page.getByText('Nothing found in this site.')).toBeVisible();
  await page.getByLabel('in all sites').check();
  await expect(page.getByRole('option').first()).toContainText('Saltmarsh Creamery');
  await page.getByRole('option').filter({ hasText: 'Saltmarsh Creamery' }).first().click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Saltmarsh Creamery');
});

test('the plan is taken away as a file and read back as the same plan, as a new site', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'handover');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download plan' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('row-house-weir-street-12.dianome.json');
  const file = await download.path();
  await page.goto('/');
  await page.getByLabel('Bring in a plan file').setInputFiles(file);
  await expect(page).toHaveURL(/segments$/);
  const copy = /site\/(\w+)\//.exec(page.url())![1];
  expect(copy).not.toBe(site);
  const again = await request.get(`/api/sites/${copy}/export`);
  expect(await again.text()).toBe(await readFile(file, 'utf8'));
});

test('a plan file comes in as a reviewed change to this site', async ({ page, request }, info) => {
  const site = await demoSite(request, '1-row-house');
  await open(page, site, 'handover');
  const text = await (await request.get(`/api/sites/${site}/export`)).text();
  const file = info.outputPath('changed.json');
  await writeFile(file, text.replace('"name": "Family"', '"name": "Big family"'));
  await page.getByLabel('Choose a file').setInputFiles(file);
  await expect(
    page
      .getByRole('dialog')
      .getByRole('row', { name: /Family \(VLAN 20\) \(segment\) name Family Big family/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Take these changes' }).click();
  expect(await saved(page)).toBe(1);
  await page.getByLabel('Choose a file').setInputFiles(file);
  await expect(page.getByRole('alert').filter({ hasText: 'holds exactly this plan' })).toBeVisible();
});

test('a broken or too large file is refused with the place and changes nothing', async ({
  page,
  request,
}, info) => {
  const site = await newSite(request);
  await open(page, site, 'handover');
  const bring = async (name: string, text: string) => {
    const file = info.outputPath(name);
    await writeFile(file, text);
    await page.getByLabel('Choose a file').setInputFiles(file);
  };
  await bring('cut.json', '{"format": "dianome-plan", "version": 1, "plan": {');
  await expect(
    page.getByRole('alert').filter({ hasText: 'cut.json: The file ends in the middle' }),
  ).toBeVisible();
  const newer = VERSION + 1;
  await bring('newer.json', `{"format": "dianome-plan", "version": ${newer}}`);
  await expect(page.getByRole('alert').filter({ hasText: `This file has version ${newer};` })).toBeVisible();
  await bring('large.json', ' '.repeat(50 * 1024 * 1024));
  await expect(
    page.getByRole('alert').filter({ hasText: 'The file has 50 MB; at most 48 MB are read' }),
  ).toBeVisible();
  await page.reload();
  expect(await saved(page)).toBe(0);
});

test('the schedule: CSV with formulas defused, and a page to print', async ({ page, request }) => {
  const site = await demoSite(request, '2-clinic');
  await open(page, site, 'addresses');
  await page.getByRole('radio', { name: '30 SV' }).click();
  const note = page.getByLabel('Note on records', { exact: true });
  await note.fill('=HYPERLINK("http://192.0.2.1","x")');
  await note.press('Enter');
  await saved(page);
  const csv = await (await request.get(`/api/sites/${site}/schedule`)).text();
  expect(csv.split('\r\n')[0]).toBe(
    'vlan,segment,subnet,mask,gateway,dns,domain,address,host,kind,mac,assignment,own settings,note',
  );
  expect(csv).toContain(`"'=HYPERLINK(""http://192.0.2.1"",""x"")"`);
  expect(csv).toContain(
    '10,Management,10.20.10.0/24,255.255.255.0,10.20.10.1,10.20.10.1,clinic.example.net,10.20.10.2,sw-rack,switch,00:00:5E:00:53:00,static on device',
  );
  await page.getByRole('link', { name: 'Hand over' }).click();
  await page.getByRole('listitem').filter({ hasText: 'Address schedule to print' }).getByRole('link').click();
  await expect(
    page.getByRole('heading', { name: 'Harrow Lane Animal Clinic: address schedule' }),
  ).toBeVisible();
  await expect(page.getByRole('row', { name: /10\.20\.50\.10 kennel-cam-01 camera/ })).toBeVisible();
});

test('faces, the matrix and channels leave as drawings that any reader of SVG takes', async ({
  page,
  request,
}) => {
  const site = await demoSite(request, '3-creamery');
  await open(page, site, 'handover');
  await unfold(page, 'One by one, for other programs');
  const drawings = page.getByRole('region', { name: 'Files for drawings' });
  for (const path of ['faces/sw-a.svg', 'matrix.svg', 'channels.svg']) {
    const href = await drawings.getByRole('link', { name: `Download ${path}` }).getAttribute('href');
    const text = await (await request.get(href!)).text();
    const read = await page.evaluate((svg) => {
      const { documentElement: root } = new DOMParser().parseFromString(svg, 'image/svg+xml');
      document.body.append(document.importNode(root, true));
      const texts = [...root.querySelectorAll('text')].map((one) => one.textContent);
      const { width, height } = document.body.lastElementChild!.getBoundingClientRect();
      return { name: root.nodeName, title: root.querySelector('title')?.textContent, texts, width, height };
    }, text);
    expect(read.name).toBe('svg');
    expect(read.title).not.toBe('');
    expect(Math.min(read.width, read.height)).toBeGreaterThan(60);
    const word = { 'faces/sw-a.svg': '28', 'matrix.svg': 'HTTPS, OPC UA', 'channels.svg': 'ap-03' }[path]!;
    expect(read.texts).toContain(word);
  }
});
