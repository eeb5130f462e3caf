import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { FindingsEngine } from '../../src/core/findings';
import { books } from './books';
import { clinic } from './clinic';
import { creamery } from './creamery';
import { bookOf } from './log';
import { library } from './library';
import { rowHouse } from './row-house';

/** Writes the demo sites as plan files, their logbooks beside them, and says what is in them. */
for (const [name, make] of [
  ['1-row-house', rowHouse],
  ['2-clinic', clinic],
  ['3-creamery', creamery],
  ['4-library', library],
] as const) {
  const site = make();
  writeFileSync(path.join(process.cwd(), 'demo', `${name}.json`), site.file());
  const told = books[name];
  // Of a site that is only a brief there is nothing to tell yet.
  const book = told ? bookOf(name.replace(/[^a-z0-9]/g, ''), site.plan, told) : [];
  writeFileSync(path.join(process.cwd(), 'demo', 'log', `${name}.json`), JSON.stringify(book));
  const fixed = [...site.plan.address.values()].filter((address) => !address.gateway).length;
  console.log(`${name}: ${site.plan.vlan.size} segments, ${fixed} fixed addresses`);
  for (const finding of new FindingsEngine(site.plan).all())
    console.log(`  ${finding.severity} ${finding.check}: ${finding.because}`);
}
