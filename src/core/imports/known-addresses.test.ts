import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { formatAddress } from '../address';
import { readPlanFile, tablesOf } from '../formats';
import { nextFreeAddress } from '../model/hosts';
import { type Address, type Plan, applySteps, decodeStep, finish, hostOf, withRecord } from '../plan';
import { moreThan, runs } from '../testing/runs';
import { importing } from '.';

/** Hosts of the plan in a table that is brought in. */

const clinic = readPlanFile(readFileSync('demo/2-clinic.json', 'utf8'));
const hosts = [...clinic.address.values()].filter(({ gateway }) => !gateway);

const cellsOf = (plan: Plan) => {
  const { head, rows } = tablesOf(plan).find(({ id }) => id === 'addresses')!;
  return [head, ...rows('2026-12-01')];
};
const bring = (cells: readonly (readonly string[])[], ofProgram?: true) => {
  const table = { kind: 'addresses', title: '', cells, notes: [], order: null, leftOut: false };
  const { tables, steps } = finish(importing(clinic, [{ ...table, ...(ofProgram && { ofProgram }) }], 'imp'));
  const applied = applySteps(clinic, steps.map(decodeStep));
  if (!applied.ok) throw new Error('the steps do not fit');
  const told = tables[0]!.rows.map(({ verdict, why }) => [verdict, ...why].join(': '));
  return { told, steps, plan: applied.plan };
};

const setAddress = (plan: Plan, id: string, fields: Partial<Address>): Plan =>
  withRecord(plan, 'address', id, { ...plan.address.get(id)!, ...fields });
const setDevice = (
  plan: Plan,
  host: Address,
  fields: { kind?: 'camera' | 'sensor'; name?: string },
): Plan => {
  const { device } = hostOf(plan, host);
  return withRecord(plan, 'device', device.id, { ...device, ...fields });
};

/** What somebody changes of one host in the table. */
const edits: Readonly<Record<string, (plan: Plan, host: Address, n: number) => Plan>> = {
  kind: (plan, host, n) => setDevice(plan, host, { kind: n % 2 ? 'camera' : 'sensor' }),
  way: (plan, { id }, n) => setAddress(plan, id, { assignment: n % 2 ? 'static' : 'reservation' }),
  note: (plan, { id }, n) => setAddress(plan, id, { note: `-X${n}; =seen` }),
};
/** What of a host is found again by its MAC address, or by its name in the subnet. */
const moves: Readonly<Record<string, (plan: Plan, host: Address, n: number) => Plan>> = {
  none: (plan) => plan,
  renamed: (plan, host, n) =>
    hostOf(plan, host).interface.mac === null ? plan : setDevice(plan, host, { name: `new-name-${n}` }),
  moved: (plan, host) => {
    const subnet = plan.subnet.get(host.subnet)!;
    return setAddress(plan, host.id, { address: nextFreeAddress(plan, subnet, 'other', 'static')! });
  },
  'moved round': (plan, host, n) => {
    const all = hosts.filter(({ subnet }) => subnet === host.subnet);
    // Where two have one address by mistake, a table that moves them says it too, and is asked to mend it.
    const ring = all.filter((one) => all.every((other) => other === one || other.address !== one.address));
    return ring.reduce(
      (now, { id }, i) => setAddress(now, id, { address: ring[(i + n) % ring.length]!.address }),
      plan,
    );
  },
};

test('what is edited of hosts in their table is what the plan says afterwards, addresses that go round too', () => {
  const at = fc.nat(hosts.length - 1);
  const edit = fc.tuple(fc.constantFrom(...Object.keys(edits)), at, fc.nat(9));
  const move = fc.tuple(fc.constantFrom(...Object.keys(moves)), at, fc.integer({ min: 1, max: 9 }));
  let changed = 0;
  fc.assert(
    fc.property(fc.array(edit, { maxLength: 8 }), move, (some, [how, host, n]) => {
      const edited = some.reduce((plan, [what, one, k]) => edits[what]!(plan, hosts[one]!, k), clinic);
      const wanted = cellsOf(moves[how]!(edited, hosts[host]!, n));
      const { told, steps, plan } = bring(wanted);
      expect(told.filter((one) => one.startsWith('re'))).toEqual([]);
      expect(cellsOf(plan)).toEqual(wanted);
      changed += steps.length;
    }),
    { numRuns: runs(100) },
  );
  expect(changed).toBeGreaterThan(moreThan(300));
});

describe('a row', () => {
  const head = ['name', 'address', 'mac', 'fixed by', 'kind', 'note'];

  test('says what it changes; an empty cell clears nothing', () => {
    const { told, plan } = bring([
      head,
      ['records', '10.20.30.10', '', 'reservation', 'camera', 'seen'],
      ['images', '10.20.30.11', '', '', '', ''],
    ]);
    expect(told).toEqual([
      'good: changes kind from server to camera: changes how it is fixed from static on device to reservation: sets the note',
      'there',
    ]);
    expect([...plan.address.values()].some(({ note }) => note === 'X-ray archive')).toBe(true);
  });

  test('of a list of another program, or of a table without a head, changes no host that is there', () => {
    const row = ['records', '10.20.30.10', '00:00:5E:00:53:10', 'reservation', 'camera', 'seen'];
    expect(bring([head, row], true).steps).toEqual([]);
    expect(bring([row]).steps).toEqual([]);
    expect(bring([head, row]).steps).not.toEqual([]);
  });

  test('takes no address from who keeps it, nor moves a host whose name stands twice', () => {
    const kept = bring([
      head,
      ['records', '10.20.30.11', '', '', '', ''],
      ['images', '10.20.30.12', '', '', '', ''],
      ['directory', '10.20.30.12', '', '', '', ''],
    ]);
    expect(kept.told).toEqual([
      expect.stringMatching(/^refused: 10\.20\.30\.11 is images’s already/),
      expect.stringMatching(/^refused: 10\.20\.30\.12 is directory’s already/),
      'there',
    ]);
    const twice = bring([
      head,
      ['records', '10.20.30.71', '', '', '', ''],
      ['records', '10.20.30.72', '', '', '', ''],
    ]);
    expect(twice.told.every((one) => one.startsWith('refused'))).toBe(true);
  });

  test('moves a host to where another one left', () => {
    const { told, plan } = bring([
      head,
      ['records', '10.20.30.11', '', '', '', ''],
      ['images', '10.20.30.71', '', '', '', ''],
    ]);
    expect(told).toEqual(['good: moves records from 10.20.30.10', 'good: moves images from 10.20.30.11']);
    const where = (name: string) =>
      [...plan.address.values()]
        .filter((one) => hostOf(plan, one).device.name === name)
        .map(({ address }) => formatAddress(address));
    expect([where('records'), where('images')]).toEqual([['10.20.30.11'], ['10.20.30.71']]);
  });

  test('with other words for kind and way leaves both as they are, and says so', () => {
    expect(bring([head, ['records', '10.20.30.10', '', 'by magic', 'spaceship', '']]).told).toEqual([
      'repaired: kind “spaceship” is not one of ours, left as it is: fixed by “by magic” is none of the ways, left as it is',
    ]);
  });
});
