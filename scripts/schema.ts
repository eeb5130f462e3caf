import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { planFileJsonSchema } from '../src/core/formats/json-schema';

/** Writes docs/plan.schema.json. */
writeFileSync(
  path.join(process.cwd(), 'docs/plan.schema.json'),
  `${JSON.stringify(planFileJsonSchema(), null, 2)}\n`,
);
