import { singleFaultsOf, singleFaults, whatIf } from '../../src/core/rehearse';
import { fabricOf } from '../../src/core/model/wiring';
import { growTrees } from '../../src/core/model/tree';
import { copyOf, median, show, time } from './measure';
import { largeTrees, naiveTree } from './trees';

/** All spanning trees of a large site, one fault, all link faults: in a process of its own, so that its memory is theirs. */
async function main() {
  const plan = largeTrees(200, 150, 64, 6000, 400);
  const size = '200 switches, 400 links, 64 instances, 150 VLANs';
  const wired = fabricOf(plan);
  const runs: number[] = [];
  for (let i = 0; i < 12; i++) runs.push(await time(1, () => growTrees(plan, wired)));
  const trees = median(runs.slice(4));
  const { grown } = growTrees(plan, wired);
  const naive = await time(1, () => grown.reduce((sum, { topology }) => sum + naiveTree(topology), 0));
  show(`all trees, ${size}`, trees, { name: 'asking round until nothing changes', ms: naive });

  const faults = singleFaultsOf(plan).filter(({ kind }) => kind === 'cable');
  const one = (i: number) => time(1, () => whatIf(plan, [faults[(i * 29 + 7) % faults.length]!], null));
  const first = await one(0);
  const tries: number[] = [];
  for (let i = 1; i < 40; i++) tries.push(await one(i));
  const run = singleFaults(plan, null);
  run.next();
  const asked = 400;
  const some = await time(1, () => {
    for (let i = 0; i < asked; i++) run.next();
  });
  const memory = Math.round(process.resourceUsage().maxRSS / 1000);
  // Plans of which nothing is known come last: their memory is not that of the rehearsal.
  const anew = await time(3, (i) => whatIf(copyOf(plan), [faults[i * 31]!], null));
  const nothing = { name: 'from nothing', ms: anew };
  show('the very first what-if, with the plan as it is', first, nothing);
  show('what if, one link, 6,000 end devices, 20 questions', median(tries.slice(10)), nothing);
  show(`single faults, ${asked} links one after the other`, some, {
    name: 'each from nothing',
    ms: anew * asked,
  });
  console.log(`memory of the process at its most: ${memory} MB`);
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
