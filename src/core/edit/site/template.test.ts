import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { formatAddress, formatPrefix, parseAddress } from '../../address';
import { FindingsEngine } from '../../findings';
import { readPlanFile } from '../../formats';
import { type Plan, siteOf, stepsBetween, withRecord } from '../../plan';
import { build, damagedSite, prefix } from '../../testing/plans';
import { runs } from '../../testing/runs';
import { fromTemplate } from './template';

const demo = (name: string) => readPlanFile(readFileSync(path.join('demo', `${name}.json`), 'utf8'));
const clinic = demo('2-clinic');
// Networks of others stay where they are: whether something lies in them is another matter in another space.
const keysOf = (plan: Plan) =>
  [...new FindingsEngine(plan).all()]
    .map(({ key }) => key)
    .filter((key) => !key.startsWith('subnet-foreign:'))
    .sort();

test('a copy in another space has the same right and the same wrong, and leads back', () => {
  fc.assert(
    fc.property(damagedSite.map(build), (plan) => {
      const { name, space } = siteOf(plan);
      const [own] = space.filter(({ address }) => typeof address === 'number');
      if (!own) return;
      const other = { ...own, address: (own.address as number) + 2 ** (32 - own.length) * 4 };
      const copy = fromTemplate(plan, { name, space: other });
      expect(stepsBetween(plan, fromTemplate(copy, { name, space: own }))).toEqual([]);
      // Nothing of the old space is left in it.
      expect(siteOf(copy).space).toContainEqual(other);
      expect(keysOf(copy)).toEqual(keysOf(plan));
    }),
    { numRuns: runs(40), seed: 4 },
  );
});

test('a router behind a router faces the segment in its new place', () => {
  const [uplink] = clinic.uplink.values();
  const [subnet] = [...clinic.subnet.values()].filter(
    ({ prefix }) => formatPrefix(prefix) === '10.20.20.0/24',
  );
  const inside = withRecord(clinic, 'uplink', uplink!.id, {
    ...uplink!,
    segment: subnet!.vlan,
    address: parseAddress('10.20.20.250'),
    network: subnet!.prefix,
    monitor: parseAddress('192.0.2.1'),
  });
  const copy = fromTemplate(inside, { name: 'Copy', space: prefix('10.99.0.0/16') });
  const { address, network, monitor } = copy.uplink.get(uplink!.id)!;
  expect([address, monitor].map((one) => formatAddress(one!))).toEqual(['10.99.20.250', '192.0.2.1']);
  expect(formatPrefix(network!)).toBe('10.99.20.0/24');
});

test('names and domain are its own', () => {
  const names = { from: 'run-temp', to: 'cage-temp' };
  const copy = fromTemplate(clinic, { name: 'Second clinic', domain: 'second.example.net', names });
  expect([siteOf(copy).name, siteOf(copy).domain]).toEqual(['Second clinic', 'second.example.net']);
  const all = [...copy.device.values()].map(({ name }) => name);
  expect(all.filter((name) => name.startsWith('cage-temp')).length).toBeGreaterThan(3);
  expect(all.some((name) => name.includes('run-temp'))).toBe(false);
  expect(copy.address.size).toBe(clinic.address.size);
});

test('a space that is none or too small is refused, and a name that would be none', () => {
  const name = 'Copy';
  expect(() => fromTemplate(clinic, { name, space: prefix('10.99.0.0/24') })).toThrow(
    /10\.99\.0\.0\/24 is too small: 10\.20\.\d+\.0\/24 has no place in it/,
  );
  expect(() => fromTemplate(clinic, { name, space: prefix('2001:db8::/48') })).toThrow(/is no IPv4 space/);
  expect(() => fromTemplate(clinic, { name, names: { from: 'x-ray', to: '' } })).toThrow(
    /x-ray would be called so: The host name is empty/,
  );
});
