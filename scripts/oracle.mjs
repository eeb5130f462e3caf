import { entry } from './lib/say.mjs';
import { KERNEL, requirePackages, runProgram } from './lib/setup.mjs';

/** Compares the rehearsal with the kernel on networks drawn at random: `npm run oracle -- 1000 1` for 1,000 from seed 1. */
entry(async () => {
  await requirePackages(KERNEL);
  await runProgram('oracle.ts');
});
