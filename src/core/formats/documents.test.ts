import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { FindingsEngine } from '../findings';
import { tableNames } from '../plan';
import { formatPage } from './format-page';
import { planFileJsonSchema } from './json-schema';
import { readPlanFile, writePlanFile } from './plan-file';

const file = (...parts: string[]) => readFileSync(path.join(process.cwd(), ...parts), 'utf8');

describe('documents that ship', () => {
  test('docs/plan.schema.json is what the schemas say (npm run schema)', () =>
    expect(JSON.parse(file('docs/plan.schema.json'))).toEqual(
      JSON.parse(JSON.stringify(planFileJsonSchema())),
    ));
  test('docs/format.md says what the kinds say (npm run schema)', () => {
    const text = file('docs/format.md');
    // The width of columns is a matter of formatting.
    const plainly = (page: string) => page.replace(/[ -]+/g, ' ');
    expect(plainly(formatPage(text))).toBe(plainly(text));
    for (const table of tableNames) expect(text).toContain(`\`${table}\``);
  });
  const demos = readdirSync(path.join(process.cwd(), 'demo')).filter((name) => name.endsWith('.json'));
  test('there are four demo sites', () => expect(demos).toHaveLength(4));
  test.each(demos)('demo/%s reads back to the same bytes and has honest mistakes to show', (name) => {
    const text = file('demo', name);
    const plan = readPlanFile(text);
    expect(writePlanFile(plan)).toBe(text);
    const findings = new FindingsEngine(plan).all();
    // One is a brief only: nothing is planned yet that could be wrong.
    const planned = plan.vlan.size > 0;
    expect(findings.length).toBeGreaterThanOrEqual(planned ? 4 : 0);
    expect(findings.length).toBeLessThanOrEqual(planned ? 42 : 0);
    // Made-up names and the documentation MAC range only.
    for (const item of plan.interface.values())
      expect(item.mac ?? '00:00:5E:00:53:00').toMatch(/^00:00:5E:00:53:/);
    expect(plan.site.get('site')!.domain).toMatch(/example\.net$/);
  });
});
