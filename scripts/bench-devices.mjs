import { entry } from './lib/say.mjs';
import { runProgram } from './lib/setup.mjs';

/** Pretend boxes of a plan on the command line: `npm run bench-devices -- plan.json`. */
entry(() => runProgram('bench-devices.ts'));
