import { readFileSync } from 'node:fs';
import { type Browser, type Page, chromium } from '@playwright/test';
import { readPlanFile, writePlanFile } from '../../src/core/formats';
import { FindingsEngine } from '../../src/core/findings';
import { perform } from '../../src/core/edit';
import { type Call, type Plan, applyChange } from '../../src/core/plan';
import { median } from './measure';
import { largeNetwork } from './network';
import { largeSite } from './site';

/** What a person waits for on the page, beside what the core needs for the same: as ratios of one run. */

const url = process.env.DIANOME_URL!;
const EDITS = 200;
const ROUNDS = 7;
const TODAY = '2026-11-28';
/** Whatever is not there after so many milliseconds never comes. */
const PATIENCE = 60_000;

interface Edit {
  readonly field: string;
  readonly text: string;
  readonly call: Call;
}
/** Where the page edits, and what: something nobody complains of, a mistake, and its mending. */
interface Place {
  readonly path: string;
  readonly note: (i: number) => Edit;
  readonly wrong: Edit;
  readonly right: Edit;
  /** What is scrolled. */
  readonly list: 'hosts' | 'ports';
}

/** A fixed address, and the MAC address of another in its subnet. */
function addressIn(plan: Plan): Place {
  const own = [...plan.address.values()].filter(({ gateway }) => !gateway);
  for (const address of own) {
    const other = own.find(
      ({ id, subnet, interface: card }) =>
        id !== address.id && subnet === address.subnet && plan.interface.get(card)!.mac !== null,
    );
    if (!other) continue;
    const { vlan } = plan.subnet.get(address.subnet)!;
    const card = plan.interface.get(address.interface)!;
    const name = plan.device.get(card.device)!.name;
    const mac = plan.interface.get(other.interface)!.mac!;
    const set = (table: 'address' | 'interface', id: string, fields: object): Call => ({
      operation: 'edit',
      input: { table, id, set: fields as never },
    });
    return {
      path: `addresses?vlan=${vlan}&address=${address.id}`,
      note: (i) => ({
        field: `Note on ${name}`,
        text: `note ${i}`,
        call: set('address', address.id, { note: `note ${i}` }),
      }),
      wrong: { field: `MAC of ${name}`, text: mac, call: set('interface', card.id, { mac }) },
      right: { field: `MAC of ${name}`, text: '', call: set('interface', card.id, { mac: null }) },
      list: 'hosts',
    };
  }
  throw new Error('no two addresses in one subnet');
}

/** The first access port; that nobody decided what it is to be is complained of. */
function portIn(plan: Plan): Place {
  const port = [...plan.port.values()].find(({ role, number }) => role === 'access' && number > 0)!;
  const assign = (input: object): Call => ({
    operation: 'assignPorts',
    input: { ports: [port.id], ...input } as never,
  });
  const name = `${plan.device.get(port.device)!.name} ${port.number}`;
  const vlan = plan.vlan.get(port.untagged!)!;
  return {
    path: 'gear',
    note: (i) => ({
      field: `Label of ${name}`,
      text: `label ${i}`,
      call: { operation: 'edit', input: { table: 'port', id: port.id, set: { label: `label ${i}` } } },
    }),
    wrong: { field: `What ${name} carries`, text: 'undecided', call: assign({ role: 'undecided' }) },
    right: {
      field: `What ${name} carries`,
      text: `access ${vlan.vid}`,
      call: assign({ role: 'access', vlan: vlan.id }),
    },
    list: 'ports',
  };
}

/** The core alone, each edit with the findings that follow. */
function coreTimes(plan: Plan, { note, wrong, right }: Place): { note: number; mistake: number } {
  const engine = new FindingsEngine(plan, TODAY);
  let now = plan;
  let seeds = 0;
  const step = ({ call }: Edit) => {
    const began = performance.now();
    const applied = applyChange(now, perform(now, call, `b${seeds++}`));
    if (!applied.ok) throw new Error('does not apply');
    now = applied.plan;
    engine.advance(now);
    return performance.now() - began;
  };
  const rounds = Array.from({ length: ROUNDS }, (_, i) => {
    const taken = { note: step(note(i)), mistake: step(wrong) };
    step(right);
    return taken;
  });
  return {
    note: median(rounds.map((round) => round.note)),
    mistake: median(rounds.map(({ mistake }) => mistake)),
  };
}

/** Counts what keeps the main thread, in the page. */
const watch = () => {
  const state = { tasks: [] as number[] };
  (window as never as { bench: typeof state }).bench = state;
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) state.tasks.push(duration);
  }).observe({ type: 'longtask', buffered: true });
};
const longest = (page: Page) =>
  page.evaluate(() => {
    const { bench } = window as never as { bench: { tasks: number[] } };
    const most = Math.max(0, ...bench.tasks);
    bench.tasks.length = 0;
    return most;
  });

/** From the Enter that commits a field until what it says is on the screen; of the line of the last change. */
async function committed(page: Page, { field: label, text }: Edit, wanted: string): Promise<number> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(text);
  const waiting = page.evaluate((part) => {
    return new Promise<number>((resolve) => {
      let began = 0;
      window.addEventListener('keydown', (event) => (began = event.timeStamp), { capture: true, once: true });
      const line = document.querySelector('[data-testid="last-change"]')!;
      const seen = () => {
        if (!began || !line.textContent!.includes(part)) return;
        observer.disconnect();
        requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)));
      };
      const observer = new MutationObserver(seen);
      observer.observe(line, { childList: true, characterData: true, subtree: true });
    });
  }, wanted);
  await field.press('Enter');
  const never = new Promise<never>((_, reject) => {
    const patience = setTimeout(() => {
      reject(new Error(`after “${text}” in “${label}” the page never said “${wanted}”`));
    }, PATIENCE);
    void waiting.finally(() => clearTimeout(patience));
  });
  return Promise.race([waiting, never]);
}

async function frames(page: Page, list: string): Promise<{ slow: number; of: number }> {
  await page.getByTestId(list).hover();
  const counted = page.evaluate(
    () =>
      new Promise<{ slow: number; of: number }>((resolve) => {
        let [last, slow, of] = [performance.now(), 0, 0];
        const until = last + 2500;
        const frame = (now: number) => {
          of++;
          if (now - last > 50) slow++;
          last = now;
          if (now < until) requestAnimationFrame(frame);
          else resolve({ slow, of });
        };
        requestAnimationFrame(frame);
      }),
  );
  for (let i = 0; i < 40; i++) await page.mouse.wheel(0, 240);
  return counted;
}

async function measure(browser: Browser, name: string, plan: Plan, place: Place): Promise<void> {
  const core = coreTimes(plan, place);
  const response = await fetch(`${url}/api/sites`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ file: writePlanFile(plan) }),
  });
  const { id: site } = (await response.json()) as { id: string };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: url });
  await context.addInitScript(() => localStorage.setItem('dianome.author', 'Ada'));
  // Functions are handed over as text, in which the compiler names them by a helper of its own.
  await context.addInitScript('globalThis.__name = (made) => made');
  await context.addInitScript(watch);
  const page = await context.newPage();
  const show = async () => {
    await page.goto(`/site/${site}/${place.path}`);
    if (place.list === 'ports') await page.getByRole('radio', { name: 'table' }).click();
    await page.getByLabel(place.note(0).field, { exact: true }).waitFor();
  };
  await show();
  const first = await page.evaluate(() => performance.now());
  // Until the findings are there, the worker is still reading the plan.
  await page.getByRole('article').first().waitFor();
  const firstTask = await longest(page);

  const painted: number[] = [];
  for (let i = 0; i < ROUNDS; i++) painted.push(await committed(page, place.note(i), ` ${i}`));
  const found: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    found.push(await committed(page, place.wrong, 'finding'));
    await committed(page, place.right, 'finding');
  }
  const editTask = await longest(page);
  const scrolled = await frames(page, place.list);
  await longest(page);

  const stations: number[] = [];
  for (const [link, heading] of [
    ['Segments', 'Segments'],
    ['Who may talk', 'Who may talk'],
    ['Addresses', 'Addresses'],
  ] as const) {
    const began = await page.evaluate(() => performance.now());
    await page.getByRole('navigation').getByRole('link', { name: link }).click();
    await page.getByRole('heading', { name: heading, exact: true }).waitFor();
    stations.push((await page.evaluate(() => performance.now())) - began);
  }
  const stationTask = await longest(page);

  const heap = async () => {
    const client = await context.newCDPSession(page);
    await client.send('HeapProfiler.collectGarbage');
    const { usedSize } = await client.send('Runtime.getHeapUsage');
    return usedSize / 1e6;
  };
  await show();
  const before = await heap();
  const note = page.getByLabel(place.note(0).field, { exact: true });
  for (let i = 0; i < EDITS; i++) {
    await note.fill(`again ${i}`);
    await note.press('Enter');
  }
  await page
    .getByRole('status')
    .filter({ hasText: /change \d+ saved/ })
    .waitFor();
  const after = await heap();
  await context.close();

  const ms = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} ms`;
  const line = (what: string, text: string) => console.log(`  ${what.padEnd(38)} ${text}`);
  console.log(`\n${name}`);
  line('first picture', `${ms(first)}, longest task ${ms(firstTask)}`);
  line(
    'key to painted',
    `${ms(median(painted))}, ${(median(painted) / core.note).toFixed(1)} times the core (${ms(core.note)})`,
  );
  line(
    'key to findings painted',
    `${ms(median(found))}, ${(median(found) / core.mistake).toFixed(1)} times the core (${ms(core.mistake)})`,
  );
  line('longest task while editing', ms(editTask));
  line('another station, first visit', `${stations.map(ms).join(', ')}; longest task ${ms(stationTask)}`);
  line('scrolling the longest table', `${scrolled.slow} of ${scrolled.of} frames over 50 ms`);
  line(`heap before and after ${EDITS} edits`, `${before.toFixed(0)} and ${after.toFixed(0)} MB`);
}

async function main(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    args: ['--no-sandbox', '--disable-background-networking', '--disable-sync'],
  });
  try {
    const demo = readPlanFile(readFileSync('demo/3-creamery.json', 'utf8'));
    await measure(browser, 'demo: Saltmarsh Creamery', demo, addressIn(demo));
    const network = largeNetwork(60, 20, 1200);
    await measure(browser, '60 switches, 1,200 ends', network, portIn(network));
    const site = largeSite(200, 60);
    await measure(browser, '200 subnets, 12,000 addresses', site, addressIn(site));
  } finally {
    await browser.close();
  }
}

void main();
