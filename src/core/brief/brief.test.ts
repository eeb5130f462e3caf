import { readFileSync } from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { FindingsEngine } from '../findings';
import { typedCable } from '../edit';
import { readPlanFile } from '../formats';
import { linksAt, portsOf } from '../model/wiring';
import { askAll, probe, withFaults } from '../rehearse';
import {
  type AnyRecord,
  type Plan,
  Refusal,
  applySteps,
  finish,
  recordIn,
  referencedIds,
  references,
  tableNames,
} from '../plan';
import { anyBrief, briefPlan } from '../testing/brief';
import { done, emptySite, tried } from '../testing/plans';
import { moreThan, runs } from '../testing/runs';
import {
  type Part,
  acceptedFrom,
  alternativesOf,
  figuresOf,
  parts,
  propose,
  stepsOfParts,
  weaknessOf,
} from '.';
import { copperPorts } from './design';

const refusal = (plan: Plan): string => {
  try {
    finish(propose(plan));
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
  throw new Error('it is not refused');
};
const withNeeds = (...needs: readonly (readonly [string, number, string?])[]) =>
  needs.reduce(
    (plan, [thing, count, place = '']) => done(plan, 'addNeed', { thing, count, place }),
    emptySite(),
  );

describe('what cannot be planned is said before anything is', () => {
  test('an empty brief', () => {
    expect(refusal(emptySite())).toMatch(/^The brief names nothing that has to be connected/);
    expect(refusal(withNeeds(['camera', 0]))).toMatch(/^The brief names nothing/);
  });
  test('two wishes about the same, but not an exception to a wider one', () => {
    const wish = (plan: Plan, decision: string, services: string[] = []) =>
      done(plan, 'addWish', { from: 'guest', to: 'servers', decision, services });
    const brief = withNeeds(['guest', 5], ['server', 2]);
    expect(refusal(wish(wish(brief, 'allow'), 'deny'))).toBe(
      'Two wishes contradict each other: “Guests may reach Servers” and “Guests may not reach Servers”. Change one of them.',
    );
    const half = wish(wish(brief, 'allow', ['stdhttps', 'stdssh']), 'deny', ['stdssh', 'stdping']);
    expect(refusal(half)).toMatch(/^Two wishes contradict/);
    const exception = finish(propose(wish(wish(brief, 'allow', ['stdhttps']), 'deny')));
    expect(exception.unmet).toEqual([]);
  });
  test('more devices than addresses, with how many and what would fit', () => {
    expect(refusal(withNeeds(['guest', 90_000]))).toBe(
      'The brief needs 131,328 addresses in 2 subnets; 10.20.0.0/16 holds 65,536. What would fit: a prefix of /14, like 10.0.0.0/14.',
    );
  });
  test('more connections than any gateway has ports', () => {
    const many = Array.from({ length: 7 }, (_, i) => `line ${i}`).reduce(
      (plan, name) => done(plan, 'addLine', { name }),
      withNeeds(['workstation', 3]),
    );
    expect(refusal(many)).toMatch(/^7 Internet connections and 1 network need 8 ports at the gateway/);
  });
});

test('any parts of a proposal make a plan in which nothing refers to what is not there', () => {
  let left = 0;
  fc.assert(
    fc.property(anyBrief, fc.subarray([...parts]), (drawn, chosen) => {
      const plan = briefPlan(drawn);
      let proposal;
      try {
        proposal = finish(propose(plan));
      } catch (error) {
        if (error instanceof Refusal) return;
        throw error;
      }
      const steps = stepsOfParts(plan, proposal, new Set<Part>(chosen));
      const applied = applySteps(plan, steps);
      if (!applied.ok) throw new Error(`${applied.failed.table} does not apply`);
      if (steps.length < proposal.steps.length) left++;
      for (const table of tableNames)
        for (const record of applied.plan[table].values() as Iterable<AnyRecord>)
          for (const { field, to } of references[table])
            for (const id of referencedIds(record, field))
              expect([table, field, recordIn(applied.plan, to, id) !== undefined]).toEqual([
                table,
                field,
                true,
              ]);
    }),
    { numRuns: runs(60) },
  );
  expect(left).toBeGreaterThan(moreThan(20));
});

describe('alternatives', () => {
  const plan = ['Hall', 'Yard', 'Shed'].reduce(
    (made, place) => done(made, 'addNeed', { thing: 'workstation', count: 9, place }),
    done(withNeeds(['guest', 9, 'Desk'], ['server', 2, 'Desk']), 'addLine', { name: 'fibre' }),
  );

  test('begin with the habits, and differ from each other', () => {
    const all = alternativesOf(plan);
    expect(all.map(({ title }) => title)).toEqual(['VLANs', 'VLANs, ring', 'VLANs, layer 3', 'One network']);
    const ring = done(plan, 'edit', { table: 'site', id: 'site', set: { backbone: 'ring' } });
    expect(alternativesOf(ring)[0]!.title).toBe('VLANs, ring');
  });

  test('a ring has fewer single points of failure than a star, and one network keeps nobody apart', () => {
    const [star, ring, , flat] = alternativesOf(plan).map(({ choice }) => finish(propose(plan, choice)));
    const points = [star!, ring!].map((one) => finish(weaknessOf(one)).points);
    expect(points[1]!).toBeLessThan(points[0]!);
    expect(figuresOf(flat!).apart).toBe(0);
    expect(figuresOf(star!).apart).toBeGreaterThan(0);
  });
});

test('what one group may is not opened to one that is named apart, and what none may is closed to both', () => {
  const brief = [
    { thing: 'workstation', count: 4 },
    { thing: 'workstation', count: 6, apart: 'Public places' },
    { thing: 'camera', count: 2 },
    { thing: 'server', count: 1 },
  ].reduce((made, need) => done(made, 'addNeed', need), done(emptySite(), 'addLine', { name: 'fibre' }));
  const wish = (from: string, to: string, decision: string) => ({ from, to, decision });
  const plan = [
    wish('staff', 'cameras', 'allow'),
    wish('staff', 'servers', 'deny'),
    wish('cameras', 'internet', 'allow'),
  ].reduce((made, one) => done(made, 'addWish', one), brief);
  const proposal = finish(propose(plan));
  const named = (name: string) => [...proposal.plan.vlan.values()].find((vlan) => vlan.name === name)!;
  const passes = (from: string, to: string) =>
    probe(
      proposal.plan,
      {
        from: { vlan: named(from).id },
        to: to === 'internet' ? { internet: true } : { vlan: named(to).id },
        wanted: { protocol: 'tcp', port: 443 },
      },
      null,
    ).delivered;
  expect([passes('Staff', 'Cameras'), passes('Public places', 'Cameras')]).toEqual([true, false]);
  expect([passes('Staff', 'Servers'), passes('Public places', 'Servers')]).toEqual([false, false]);
  expect([passes('Cameras', 'internet'), passes('Public places', 'Staff')]).toEqual([true, false]);
});

test('boxes at hand are used before anything is bought, where they do', () => {
  const brief = withNeeds(['workstation', 20]);
  const bought = finish(propose(brief)).hardware;
  expect(bought.switches.map(({ atHand }) => atHand)).toEqual([false]);
  const own = done(brief, 'addStock', { sort: 'switch', model: 'ours', copper: 48, fibre: 2 });
  expect(finish(propose(own)).hardware.switches.map(({ model }) => model.name)).toEqual(['ours']);
  const old = tried(own, 'edit', {
    table: 'stock',
    id: [...own.stock.values()][0]!.id,
    set: { vlanAware: false },
  });
  const { hardware } = finish(propose(old));
  expect(hardware.switches.map(({ atHand }) => atHand)).toEqual([false]);
  expect(hardware.decisions.map(({ why }) => why)).toContain('it does not understand VLANs');
});

test('a box at hand with fewer ports than its own cables need takes nothing it has no socket for', () => {
  const tiny = done(withNeeds(['workstation', 70]), 'addStock', {
    sort: 'switch',
    model: 'tiny',
    copper: 1,
    fibre: 1,
  });
  const { hardware, plan } = finish(propose(tiny));
  for (const { model, plugged } of hardware.switches)
    for (const port of plugged.keys()) expect(copperPorts(model)).toContain(port);
  const computers = [...plan.device.values()].filter(({ kind }) => kind === 'computer');
  expect(computers).toHaveLength(70);
  for (const { id } of computers) {
    const [socket] = portsOf(plan, id);
    expect(linksAt(plan, socket!)).toHaveLength(1);
  }
});

test('where many share the way to the gateway it is two cables in one bundle, of which either may fail', () => {
  const brief = done(withNeeds(['workstation', 70]), 'addLine', { name: 'fibre' });
  const proposal = finish(propose(brief));
  const lags = [...proposal.plan.lag.values()];
  expect(lags.map(({ lacp }) => lacp)).toEqual([true, true]);
  const members = [...proposal.plan.port.values()].filter(({ lag }) => lag !== null);
  expect(members).toHaveLength(4);
  const carried = new Set(members.map(({ tagged }) => tagged.join(' ')));
  expect(carried.size).toBe(1);
  const cut = [...proposal.plan.cable.values()].filter(({ from }) => members.some(({ id }) => id === from));
  expect(cut).toHaveLength(2);
  const [staff] = [...proposal.plan.vlan.values()].filter(({ purpose }) => purpose === 'staff');
  for (const { id } of cut) {
    const broken = withFaults(proposal.plan, [{ kind: 'cable', cable: id }]);
    const asked = {
      from: { vlan: staff!.id },
      to: { internet: true as const },
      wanted: { protocol: 'tcp' as const, port: 443 },
    };
    expect(probe(broken, asked, null).delivered).toBe(true);
  }
  // A handful does with one.
  expect(finish(propose(withNeeds(['workstation', 5]))).plan.lag.size).toBe(0);
});

test('a socket somebody has used for something of their own is used for nothing else', () => {
  const brief = done(withNeeds(['workstation', 5], ['camera', 3]), 'addLine', { name: 'fibre' });
  const first = finish(propose(brief));
  const [sw] = [...first.plan.device.values()].filter(({ kind }) => kind === 'switch');
  const staff = [...first.plan.subnet.values()].find(
    ({ vlan }) => first.plan.vlan.get(vlan)!.purpose === 'staff',
  )!;
  const free = portsOf(first.plan, sw!.id).find(
    (port) => port.number > 0 && port.media === 'copper' && linksAt(first.plan, port).length === 0,
  )!;
  let plan = done(first.plan, 'addHost', { subnet: staff.id, kind: 'computer', name: 'mine' });
  plan = done(plan, 'connect', typedCable(plan, `${sw!.name} ${free.number} = mine`));
  plan = done(plan, 'assignPorts', { ports: [free.id], role: 'access', vlan: staff.vlan });
  const need = [...plan.need.values()].find(({ thing }) => thing === 'workstation')!;
  plan = done(plan, 'edit', { table: 'need', id: need.id, set: { count: 9 } });
  const again = finish(propose(plan, {}, acceptedFrom(first.steps)));
  const cables = [...again.plan.cable.values()].filter(({ from, to }) => [from, to].includes(free.id));
  expect(cables.map(({ id }) => plan.cable.get(id) !== undefined)).toEqual([true]);
  const stops = new FindingsEngine(again.plan, null).all().filter(({ severity }) => severity === 'stop');
  expect(stops.map(({ what }) => what)).toEqual([]);
});

describe('on a site that stands', () => {
  test.each(['1-row-house', '2-clinic', '3-creamery'])(
    'the brief of %s is added to it, and nothing that works is touched',
    (name) => {
      const file = readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8');
      const needs = [
        { thing: 'workstation', count: 12, place: 'Annex' },
        { thing: 'camera', count: 3, place: 'Annex' },
        { thing: 'guest', count: 30, place: 'Annex', link: 'wireless' },
      ];
      const plan = needs.reduce((made, need) => done(made, 'addNeed', need), readPlanFile(file));
      const proposal = finish(propose(plan));
      const stops = (of: Plan) =>
        new FindingsEngine(of, null).all().flatMap(({ severity, key }) => (severity === 'stop' ? key : []));
      const before = new Set(stops(plan));
      expect(stops(proposal.plan).filter((key) => !before.has(key))).toEqual([]);
      // One socket of the gateway and its inside are all that changes of what was there.
      const changed = proposal.steps.filter((step) => step.before !== null);
      expect(new Set(changed.map(({ table }) => table))).toEqual(new Set(['port']));
      expect(changed.length).toBeLessThanOrEqual(2);
      const ownBefore = askAll(plan, null).map(({ answer }) => answer.delivered);
      const asked = askAll(proposal.plan, null);
      expect(asked.slice(0, ownBefore.length).map(({ answer }) => answer.delivered)).toEqual(ownBefore);
      // Proposed once more, it is as it stands.
      const again = finish(propose(proposal.plan, {}, acceptedFrom(proposal.steps)));
      expect(again.steps.map(({ table, id }) => `${table} ${id}`)).toEqual([]);
    },
  );
});
