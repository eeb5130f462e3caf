import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { FindingsEngine } from '../../src/core/findings';
import { books } from './books';
import { clinic } from './clinic';
import { creamery } from './creamery';
import { bookOf } from './log';
import { rowHouse } from './row-house';

/** Writes the demo sites as plan files, their logbooks beside them, and says what is in them. */
for (const [name, make] of [
  ['1-row-house', rowHouse],
  ['2-clinic', clinic],
  ['3-creamery', creamery],
] as const) {
  const site = make();
  writeFileSync(path.join(process.cwd(), 'demo', `${name}.json`), site.file());
  const book = bookOf(name.replace(/[^a-z0-9]/g, ''), site.plan, books[name]!);
  writeFileSync(path.join(process.cwd(), 'demo', 'log', `${name}.json`), JSON.stringify(book));
  const fixed = [...site.plan.address.values()].filter((address) => !address.gateway).length;
  console.log(`${name}: ${site.plan.vlan.size} segments, ${fixed} fixed addresses`);
  for (const finding of new FindingsEngine(site.plan).all())
    console.log(`  ${finding.severity} ${finding.check}: ${finding.because}`);
}
