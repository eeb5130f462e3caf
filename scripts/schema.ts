import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { format, resolveConfig } from 'prettier';
import { openApi } from '../src/contract/openapi';
import { formatPage, planFileJsonSchema } from '../src/core/formats';

/** Writes docs/plan.schema.json, docs/openapi.json, and what docs/format.md says of the kinds. */
async function main() {
  const docs = path.join(process.cwd(), 'docs');
  writeFileSync(path.join(docs, 'plan.schema.json'), `${JSON.stringify(planFileJsonSchema(), null, 2)}\n`);
  const contract = path.join(docs, 'openapi.json');
  const json = { ...(await resolveConfig(contract)), parser: 'json' };
  writeFileSync(contract, await format(JSON.stringify(openApi()), json));
  const page = path.join(docs, 'format.md');
  const options = { ...(await resolveConfig(page)), parser: 'markdown' };
  writeFileSync(page, await format(formatPage(readFileSync(page, 'utf8')), options));
}

main().catch((error) => {
  console.error(error);
  process.exit(1);
});
