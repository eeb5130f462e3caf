import fc from 'fast-check';
import { compareAll, drawnSite } from './oracle';
import { namespacesMissing } from './namespaces';

const missing = namespacesMissing();
if (missing !== null)
  console.log(
    `The rehearsal is not compared with the kernel: no network namespaces can be made here (${missing}).`,
  );
const onKernel = missing === null ? test : test.skip;

onKernel(
  'on sites drawn at random, mistakes included, the kernel does what the rehearsal says',
  async () => {
    const sites = fc.sample(drawnSite, { numRuns: 6, seed: 5 }).map((make) => make());
    const { networks, asked, connected, clients, leased, wrong, unlaid } = await compareAll(
      sites,
      () => undefined,
    );
    expect(wrong).toEqual([]);
    expect(networks).toBeGreaterThan(4);
    expect(networks + [...unlaid.values()].reduce((sum, n) => sum + n, 0)).toBe(6);
    expect(connected).toBeGreaterThan(500);
    expect(asked - connected).toBeGreaterThan(1500);
    expect(leased).toBeGreaterThan(3);
    expect(clients - leased).toBeGreaterThan(3);
  },
  900_000,
);
