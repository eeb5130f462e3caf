import { FindingsEngine } from '../../src/core/findings';
import { perform } from '../../src/core/edit';
import { applyChange, type Call, type Plan } from '../../src/core/plan';
import { copyOf, median, show, time } from './measure';
import { largeTrees } from './trees';

async function main() {
  await bench(
    '200 switches, 400 links, 64 instances, 150 VLANs and zones, 6,000 ends, 1,000 rules',
    largeTrees(200, 150, 64, 6000, 400),
  );
  await bench(
    '12,000 addresses in 200 subnets on 320 switches, 1,000 rules',
    largeTrees(320, 200, 16, 12_000, 640),
  );
}

/** All findings of a site in which everything occurs, from nothing and after single edits. */
async function bench(size: string, site: Plan) {
  let plan = site;
  const runs: number[] = [];
  for (let i = 0; i < 5; i++) {
    const copy = copyOf(plan);
    runs.push(await time(1, () => new FindingsEngine(copy, '2026-05-04')));
  }
  const whole = median(runs.slice(1));
  console.log(`Site: ${size}`);
  show('all findings from nothing', whole);
  const engine = new FindingsEngine(plan, '2026-05-04');
  let seed = 0;
  const after = async (what: string, calls: (i: number) => Call) => {
    const took = await time(15, (i) => {
      const applied = applyChange(plan, perform(plan, calls(i), `q${(seed++).toString(36)}x`));
      if (!applied.ok) throw new Error('does not apply');
      plan = applied.plan;
      engine.advance(plan);
    });
    show(`findings after ${what}`, took, { name: 'from nothing', ms: whole });
  };
  const accessPort = (n: number) =>
    [...plan.port.group(`s${n}`).values()].find(({ role, number }) => role === 'access' && number > 0)!.id;
  type Edit = Extract<Call, { operation: 'edit' }>['input'];
  const edit = (table: Edit['table'], id: string, set: Edit['set']): Call => ({
    operation: 'edit',
    input: { table, id, set },
  });
  await after('a label of a port', (i) => edit('port', `s${i * 7}p40`, { label: `desk ${i}` }));
  await after('a note of an address', (i) =>
    edit('address', [...plan.address.values()][i * 31 + 200]!.id, { note: `n ${i}` }),
  );
  await after('the name of a segment', (i) => edit('vlan', `v${i * 3}`, { name: `Renamed ${i}` }));
  await after('the name of a device', (i) => edit('device', `e${i * 17}`, { name: `other-${i}` }));
  await after('the VLAN of a port', (i) => ({
    operation: 'assignPorts',
    input: { ports: [accessPort(i * 7 + 1)], role: 'access', vlan: `v${i + 3}` },
  }));
  await after('a link that became an access port', (i) => ({
    operation: 'assignPorts',
    input: { ports: [`s${i * 7 + 1}p48`], role: 'access', vlan: `v${i + 3}` },
  }));
  const cables = [...plan.cable.values()].filter(({ to }) => to.startsWith('s'));
  await after('a cable taken out', (i) => ({
    operation: 'disconnect',
    input: { cable: cables[i * 23 + 20]!.id },
  }));
  await after('a note of a rule', (i) =>
    edit('rule', [...plan.rule.values()][i * 50]!.id, { note: `n ${i}` }),
  );
  await after('the action of a rule', (i) =>
    edit('rule', [...plan.rule.values()][i * 50]!.id, { action: i % 2 ? 'allow' : 'deny' }),
  );
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
