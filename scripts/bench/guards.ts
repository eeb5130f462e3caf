import { FindingsEngine } from '../../src/core/findings';
import { type Plan, planOf, tableNames, vlansOf } from '../../src/core/plan';
import { askingPorts } from '../../src/core/model/guards';
import { doneOn } from './air-site';
import { copyOf, show, time } from './measure';
import { largeTrees } from './trees';

const TODAY = '2026-05-04';

/** Without the questions kept with it, which would be probed in either case. */
const unasked = (plan: Plan): Plan =>
  planOf({
    ...Object.fromEntries(tableNames.map((table) => [table, [...plan[table].values()]])),
    question: [],
  } as never);

/** A site whose switches watch ten segments, ask at some ports who is there, and carry voice. */
function withGuards(base: Plan): Plan {
  const lists = Object.fromEntries(tableNames.map((table) => [table, [...base[table].values()] as object[]]));
  lists.box = lists.box!.map((box) => ({ ...box, snooping: true, dot1x: true }));
  let seed = 0;
  let plan = planOf(lists as never);
  const go = (operation: string, input: unknown) => {
    plan = doneOn(plan, operation, input, `g${(seed++).toString(36)}x`);
  };
  const switches = [...plan.box.values()].filter(({ vlanAware }) => vlanAware).map(({ device }) => device);
  const vlans = vlansOf(plan).slice(0, 10);
  go('switchOnGuards', {
    devices: switches,
    vlans: vlans.map(({ id }) => id),
    set: { snooping: true, inspection: true },
  });
  for (const address of [...plan.address.values()].filter(({ gateway }) => !gateway).slice(0, 2))
    go('addRadius', { address: address.id });
  go('addAccess', { name: 'desks' });
  const [desks] = [...plan.access.values()];
  const ports = [...plan.port.values()].filter(({ role, number }) => role === 'access' && number > 0);
  go('setPortGuards', { ports: ports.slice(0, 400).map(({ id }) => id), set: { access: desks!.id } });
  go('edit', { table: 'vlan', id: vlans[0]!.id, set: { purpose: 'voice' } });
  go('addTelephony', { vlan: vlans[0]!.id });
  const [told] = [...plan.telephony.values()];
  const set = { boot: 'http://boot.example.net/', registrar: 'sip.example.net' };
  go('edit', { table: 'telephony', id: told!.id, set });
  go('setVoiceHop', { devices: switches, set: { announces: 'yes', marks: 'kept', queue: 'yes' } });
  return plan;
}

async function main() {
  const base = unasked(largeTrees(40, 60, 4, 1500, 80));
  const guarded = withGuards(base);
  console.log(
    `Guards: ${guarded.vlanGuard.size} guarded segments at boxes, ${guarded.binding.size} bindings, ${askingPorts(guarded).length} ports that ask`,
  );
  const whole = await time(3, () => new FindingsEngine(copyOf(guarded), TODAY));
  show('all findings from nothing', whole);
  /** The same edit on the site with guards and without. */
  const after = async (what: string, change: (plan: Plan, i: number) => readonly [string, unknown]) => {
    const took: number[] = [];
    for (const start of [base, guarded]) {
      const engine = new FindingsEngine(start, TODAY);
      let now = start;
      let seed = 0;
      took.push(
        await time(15, (i) => {
          now = doneOn(now, ...change(now, i), `q${(seed++).toString(36)}x`);
          engine.advance(now);
        }),
      );
    }
    const [without, guardedTook] = took as [number, number];
    show(`findings after ${what}`, guardedTook, { name: 'from nothing', ms: whole });
    console.log(`  ${(guardedTook - without).toFixed(2)} ms of it for guards`);
  };
  const accessPort = (plan: Plan, n: number) =>
    [...plan.port.group(`s${n}`).values()].find(({ role, number }) => role === 'access' && number > 0)!.id;
  await after('a label of a port', (plan, i) => [
    'edit',
    { table: 'port', id: accessPort(plan, i + 1), set: { label: `desk ${i}` } },
  ]);
  await after('a note of an address', (plan, i) => [
    'edit',
    { table: 'address', id: [...plan.address.values()][i * 31 + 200]!.id, set: { note: `n ${i}` } },
  ]);
  await after('the VLAN of a port', (plan, i) => [
    'assignPorts',
    { ports: [accessPort(plan, i + 1)], role: 'access', vlan: `v${i + 3}` },
  ]);
  await after('the name of a segment', (_plan, i) => [
    'edit',
    { table: 'vlan', id: `v${i + 3}`, set: { name: `Renamed ${i}` } },
  ]);
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
