import { formatPrefix } from '../../src/core/address';
import { perform } from '../../src/core/edit';
import type { Plan } from '../../src/core/plan';
import { doneOn } from './air-site';
import { show, time } from './measure';
import { largeTrees } from './trees';

/** Many records in one change, beside as many changes of one: what is marked in a table and set together. */
async function main() {
  const roomy = { purpose: 'iot', prefix: '172.16.0.0/20' };
  const plan = doneOn(largeTrees(200, 150, 64, 6000, 400), 'addSegment', roomy, 'roomy1');
  console.log('Site: 200 switches, 400 links, 64 instances, 150 VLANs and zones, 6,000 ends, 1,000 rules');
  const hosts = [...plan.address.values()].filter(({ gateway }) => !gateway).map(({ id }) => id);
  const ports = [...plan.port.values()]
    .filter(({ role, number }) => role === 'access' && number > 0)
    .map(({ id }) => id);
  const boxes = [...plan.box.values()].map(({ device }) => device);
  const subnet = [...plan.subnet.values()].find(({ prefix }) => formatPrefix(prefix) === roomy.prefix)!;
  await together(plan, 'hosts removed', hosts.slice(0, 2000), 'removeHosts', (addresses) => ({ addresses }));
  await together(plan, 'hosts moved', hosts.slice(0, 2000), 'moveHostsToSubnet', (addresses) => ({
    addresses,
    subnet: subnet.id,
  }));
  await together(plan, 'ports limited in MAC addresses', ports.slice(0, 1000), 'limitMacs', (some) => ({
    ports: some,
  }));
  await together(plan, 'boxes with guards of the tree', boxes, 'guardTree', (devices) => ({ devices }));
}

async function together(
  plan: Plan,
  what: string,
  ids: readonly string[],
  operation: string,
  input: (ids: readonly string[]) => object,
) {
  const run = (some: readonly string[]) => perform(plan, { operation, input: input(some) }, 'bench');
  run(ids.slice(0, 1));
  const one = await time(15, (i) => run([ids[i * 7]!]));
  const all = await time(5, () => run(ids));
  show(`${ids.length} ${what}`, all, { name: 'as many of one', ms: one * ids.length });
}

void main();
