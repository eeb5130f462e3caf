import { entry } from './lib/say.mjs';
import { runProgram } from './lib/setup.mjs';

/** Plans on the command line: `npm run dianome -- check plan.json`. */
entry(() => runProgram('dianome.ts'));
