import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { addOffset, formatAddress } from '../address';
import { readPlanFile, tablesOf } from '../formats';
import { nextFreeAddress } from '../model/hosts';
import {
  type Address,
  type Cable,
  type Plan,
  type Vlan,
  applySteps,
  decodeStep,
  finish,
  gatewaysOf,
  hostOf,
  subnetsOf,
  vlansOf,
  withRecord,
} from '../plan';
import { done } from '../testing/plans';
import { moreThan, runs } from '../testing/runs';
import { importing } from '.';

/** Tables of what the plan has, edited and brought back. */

const clinic = readPlanFile(readFileSync('demo/2-clinic.json', 'utf8'));
const hosts = [...clinic.address.values()].filter(({ gateway }) => !gateway);

type Kind = 'segments' | 'addresses' | 'cables';
const cellsOf = (plan: Plan, kind: Kind) => {
  const { head, rows } = tablesOf(plan).find(({ id }) => id === kind)!;
  return [head, ...rows('2026-12-01')];
};
const bringIn = (kind: Kind, cells: readonly (readonly string[])[], ofProgram?: true, base = clinic) => {
  const table = { kind, title: '', cells, notes: [], order: null, leftOut: false };
  const { tables, steps } = finish(importing(base, [{ ...table, ...(ofProgram && { ofProgram }) }], 'imp'));
  const applied = applySteps(base, steps.map(decodeStep));
  if (!applied.ok) throw new Error('the steps do not fit');
  const told = tables[0]!.rows.map(({ verdict, why }) => [verdict, ...why].join(': '));
  return { told, steps, plan: applied.plan };
};

const bring = (cells: readonly (readonly string[])[], ofProgram?: true) =>
  bringIn('addresses', cells, ofProgram);

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
      const wanted = cellsOf(moves[how]!(edited, hosts[host]!, n), 'addresses');
      const { told, steps, plan } = bring(wanted);
      expect(told.filter((one) => one.startsWith('re'))).toEqual([]);
      expect(cellsOf(plan, 'addresses')).toEqual(wanted);
      changed += steps.length;
    }),
    { numRuns: runs(100) },
  );
  expect(changed).toBeGreaterThan(moreThan(300));
});

test('what is edited of segments and cables in their tables is what the plan says afterwards', () => {
  const vlans = [...clinic.vlan.values()];
  const cables = [...clinic.cable.values()];
  const change: Readonly<Record<string, (plan: Plan, at: number, n: number) => Plan>> = {
    segment: (plan, at, n) => {
      const vlan = plan.vlan.get(vlans[at % vlans.length]!.id)!;
      const fields: readonly Partial<Vlan>[] = [
        { name: `Named ${n}` },
        { code: `Q${at % vlans.length}`.slice(0, 3) },
        { purpose: 'iot' },
        { devices: n },
        { growth: n },
        { internet: !vlan.internet },
      ];
      return withRecord(plan, 'vlan', vlan.id, { ...vlan, ...fields[n % fields.length] });
    },
    gateway: (plan, at, n) => {
      const gateways = [...plan.address.values()].filter(({ gateway }) => gateway);
      const one = gateways[at % gateways.length]!;
      return setAddress(plan, one.id, { address: addOffset(one.address, n) });
    },
    cable: (plan, at, n) => {
      const cable = plan.cable.get(cables[at % cables.length]!.id)!;
      const fields: readonly Partial<Cable>[] = [
        { label: `=W${n}; -X` },
        { length: n },
        { media: 'direct-attach' },
      ];
      return withRecord(plan, 'cable', cable.id, { ...cable, ...fields[n % fields.length] });
    },
  };
  const edit = fc.tuple(fc.constantFrom(...Object.keys(change)), fc.nat(), fc.integer({ min: 1, max: 60 }));
  let changed = 0;
  fc.assert(
    fc.property(fc.array(edit, { minLength: 1, maxLength: 8 }), (some) => {
      const wanted = some.reduce((plan, [what, at, n]) => change[what]!(plan, at, n), clinic);
      for (const kind of ['segments', 'cables'] as const) {
        const cells = cellsOf(wanted, kind);
        const { told, steps, plan } = bringIn(kind, cells);
        expect(told.filter((one) => one.startsWith('re'))).toEqual([]);
        expect(cellsOf(plan, kind)).toEqual(cells);
        changed += steps.length;
      }
    }),
    { numRuns: runs(100) },
  );
  expect(changed).toBeGreaterThan(moreThan(200));
});

test('a gateway is moved where the network has one, and set where it has none', () => {
  const vlan = vlansOf(clinic).find(({ vid }) => vid === 30)!;
  const rows = (gateway: string) => [
    ['vlan', 'network', 'gateway'],
    ['30', '10.20.30.0/24', gateway],
  ];
  const at = (plan: Plan) => {
    const [subnet] = subnetsOf(plan, vlan.id);
    return gatewaysOf(plan, subnet!.id).map(({ address }) => formatAddress(address));
  };
  const moved = bringIn('segments', rows('10.20.30.254'));
  expect([moved.told, at(moved.plan)]).toEqual([
    ['good: changes gateway from 10.20.30.1 to 10.20.30.254'],
    ['10.20.30.254'],
  ]);
  expect(bringIn('segments', rows('')).told).toEqual(['there']);
  const two = done(clinic, 'addHost', {
    subnet: subnetsOf(clinic, vlan.id)[0]!.id,
    name: 'gw-2',
    kind: 'gateway',
    address: '10.20.30.2',
  });
  const second = [...two.address.values()].find((one) => formatAddress(one.address) === '10.20.30.2')!;
  const several = setAddress(two, second.id, { gateway: true });
  const left = bringIn('segments', rows('10.20.30.254'), undefined, several);
  expect([left.told, left.steps]).toEqual([['repaired: it has 2 gateways, left as they are'], []]);
});

describe('a row of hosts', () => {
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
