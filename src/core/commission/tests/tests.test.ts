import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readTrial, trialKey } from '../../exercises';
import { readPlanFile } from '../../formats';
import { fabric } from '../../model/switching';
import { sentBy, ssidsOf } from '../../model/wireless';
import { type Plan, boxOf } from '../../plan';
import { askedBy, plugIn, questionsOf } from '../../rehearse';
import { socketGroups } from './cover';
import type { SiteTest } from './site-test';
import { put } from '../../testing/gear';
import { siteTests } from './site-tests';

const TODAY = '2026-11-30';
const sites = ['1-row-house', '2-clinic', '3-creamery'].map((name) => {
  const plan = readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));
  return { name, plan, made: siteTests(plan, TODAY) };
});
const all = (made: ReturnType<typeof siteTests>): readonly SiteTest[] =>
  made.rounds.flatMap(({ tests }) => tests);
const named = (made: ReturnType<typeof siteTests>, at: string) =>
  made.rounds.find((round) => round.at === at)!;
const changed = (plan: Plan, seek: (test: SiteTest) => boolean) => all(siteTests(plan, TODAY)).find(seek);

test.each(sites)('$name: every socket is tried or is like one that is, once', ({ plan }) => {
  const groups = socketGroups(plan);
  const covered = groups.flatMap(({ port, alike }) => [port.id, ...alike.map(({ id }) => id)]);
  const wanted = [...plan.port.values()].filter(
    ({ device, number, role, enabled, defective, untagged }) =>
      number > 0 &&
      (role === 'access' || role === 'voice') &&
      enabled &&
      !defective &&
      untagged !== null &&
      boxOf(plan, device) &&
      fabric(plan).bridges.some((bridge) => bridge.device === device),
  );
  expect(covered.toSorted()).toEqual(wanted.map(({ id }) => id).toSorted());
  // Who lands at one lands where they land at those like it.
  for (const { port, alike } of groups)
    for (const other of alike)
      expect(plugIn(plan, { port: other.id }, TODAY).vlan?.id).toBe(
        plugIn(plan, { port: port.id }, TODAY).vlan?.id,
      );
});

test.each(sites)('$name: every network, access point, forward and question is tried', ({ plan, made }) => {
  const keys = new Set(all(made).map(({ key }) => key));
  expect(keys.size).toBe(all(made).length);
  const joins = all(made).flatMap(({ trial }) => (trial?.kind === 'join' ? [trial.at] : []));
  const sending = ssidsOf(plan).filter((ssid) => sentBy(plan, ssid).length > 0);
  expect(new Set(joins.map(({ ssid }) => ssid))).toEqual(new Set(sending.map(({ id }) => id)));
  expect(new Set(joins.map(({ at }) => at))).toEqual(
    new Set(sending.flatMap((ssid) => sentBy(plan, ssid).map(({ id }) => id))),
  );
  expect(joins.length).toBeLessThanOrEqual(
    Math.max(1, new Set(joins.map(({ at }) => at)).size + sending.length - 1),
  );
  const forwards = [...plan.forward.values()].filter(({ enabled }) => enabled);
  const texts = all(made).map(({ does }) => does);
  for (const { from } of forwards)
    expect(texts.some((text) => text.includes(` ${from} of the outside address`))).toBe(true);
  for (const question of questionsOf(plan)) {
    const asked = askedBy(question);
    const to = all(made).filter(
      ({ trial }) =>
        trial?.kind === 'talk' &&
        trialKey({ ...trial, question: { ...trial.question, from: asked.from } }) ===
          trialKey({ kind: 'talk', question: asked }),
    );
    const expects = question.expected === 'delivered' ? 'It answers.' : 'It does not answer.';
    expect(to.some((one) => one.expects === expects && one.why === (question.why || one.why))).toBe(true);
  }
});

test.each(sites)(
  '$name: what is expected is what the rehearsal finds, or it is said why not',
  ({ plan, made }) => {
    for (const { trial, expects, amiss } of all(made)) {
      if (trial?.kind !== 'talk') continue;
      const { verdict } = readTrial(plan, trial, TODAY);
      const answers = verdict === 'passes' || verdict === 'assumed';
      expect([expects, amiss === '']).toEqual([expects, answers === (expects !== 'It does not answer.')]);
    }
  },
);

test('a socket of each segment is the seat from which its neighbours are tried', () => {
  const { plan, made } = sites[1]!;
  const seat = named(made, 'sw-rack 9');
  expect(seat.tests.map(({ does }) => does)).toEqual(
    expect.arrayContaining(['Open a page in the Internet', 'Open the page of the gateway (tcp 443)']),
  );
  expect(seat.tests.length).toBeGreaterThan(5);
  const other = socketGroups(plan).find(({ port }) => port.number === 31)!;
  expect(named(made, `sw-rack ${other.port.number}`).tests).toHaveLength(1);
  expect(made.assumed).toContain('sw-rack 5-8 as 9');
});

test('what the plan itself gets wrong is said beside the test', () => {
  const [house] = sites;
  const lost = all(house!.made).find(({ does }) => does === 'Join Rowan beside ap-attic')!;
  expect(lost.expects).toBe('You land in Family, with an address and a gateway.');
  expect(lost.amiss).toContain('get no address');
  const found = changed(house!.plan, ({ does }) => does === 'Join Rowan beside ap-ground')!;
  expect(found.amiss).toBe('');
  expect(found.expects).toMatch(/^You land in Family, get 192\.168\.20\.100–192\.168\.20\.177 from gw-1/);
});

test('the ring and the main line are pulled, with who goes another way and what is lost', () => {
  const { tests } = named(sites[2]!.made, 'while everything runs');
  expect(tests.map(({ does }) => does)).toEqual([
    'Pull the cable sw-b 10 to sw-c 9',
    'Pull the line of fibre',
  ]);
  expect(tests[0]!.expects).toContain('Everybody stays in touch; 8 by another way.');
  expect(tests[1]!.expects).toContain('lost: tcp 443 to jump-host');
  expect(sites[0]!.made.rounds.some(({ at }) => at === 'while everything runs')).toBe(false);
});

test.each(sites)(
  '$name: nobody walks twice to one place; two telephones call each other',
  ({ plan, made }) => {
    const places = made.rounds.map(({ place }) => place);
    const walked = places.filter((place, at) => place !== '' && place !== places[at - 1]);
    expect(new Set(walked).size).toBe(walked.length);
    const calls = all(made).filter(({ does }) => does.startsWith('Call '));
    const phones = [...plan.device.values()].filter(({ kind }) => kind === 'phone').length;
    expect(calls).toHaveLength(phones > 1 ? 1 : 0);
    for (const { seen, amiss } of calls) expect([seen, amiss]).toEqual(['answers', '']);
    // A telephone at a port that is off hears nothing: the test says why it cannot come out.
    const trial = calls[0]?.trial;
    if (trial?.kind !== 'talk' || !('device' in trial.question.to)) return;
    const { device } = trial.question.to;
    const own = [...plan.port.values()].find((one) => one.device === device)!;
    const cable = [...plan.cable.values()].find(({ from, to }) => from === own.id || to === own.id)!;
    const far = plan.port.get(cable.from === own.id ? cable.to : cable.from)!;
    const silent = siteTests(put(plan, 'port', far, { enabled: false }), TODAY);
    expect(all(silent).find(({ does }) => does.startsWith('Call '))!.amiss).not.toBe('');
  },
);
