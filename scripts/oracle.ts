import fc from 'fast-check';
import { namespacesMissing } from '../src/kernel/namespaces';
import { compareAll, drawnSite } from '../src/kernel/oracle';

const TOGETHER = 25;

async function main() {
  const missing = namespacesMissing();
  if (missing !== null) throw new Error(`No network namespaces can be made here: ${missing}`);
  const [count = 1000, seed = 1] = process.argv.slice(2).map(Number);
  const sites = fc.sample(drawnSite, { numRuns: count, seed });
  // Some at a time, so that no more plans are held than are being compared.
  for (let at = 0; at < sites.length; at += TOGETHER) {
    const plans = sites.slice(at, at + TOGETHER).map((make) => make());
    const total = await compareAll(plans, () => undefined);
    console.log(
      `${at + plans.length} of ${count}: ${total.networks} networks, ${total.asked} calls compared, ${total.connected} answered, ${total.left} left, ${total.leased} of ${total.clients} clients leased, ${total.wrong.length} otherwise than rehearsed`,
    );
    for (const [why, many] of total.unlaid) console.log(`  ${many} not laid: ${why}`);
    for (const line of total.wrong)
      console.log(`  ${line.replace('network ', `seed ${seed}, network ${at} + `)}`);
    if (total.wrong.length > 0) process.exitCode = 1;
  }
}

void main().then(() => process.exit());
