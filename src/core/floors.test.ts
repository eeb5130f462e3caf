import { existsSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { Linter } from 'eslint';
import { floors, floorsRule } from '../../scripts/lib/floors.mjs';

const core = path.join(process.cwd(), 'src/core');

function complaints(file: string, code: string): string[] {
  const linter = new Linter({ cwd: process.cwd() });
  return linter
    .verify(
      code,
      [
        {
          files: ['**/*.ts'],
          plugins: { core: { rules: { floors: floorsRule } } },
          rules: { 'core/floors': 'error' },
        },
      ],
      { filename: path.join(core, file) },
    )
    .map(({ messageId }) => messageId ?? 'other');
}

describe('the floors of the core', () => {
  test('are all there, each with an index, and no folder besides', () => {
    for (const floor of floors)
      expect([floor, existsSync(path.join(core, floor, 'index.ts'))]).toEqual([floor, true]);
    const folders = readdirSync(core, { withFileTypes: true }).filter((item) => item.isDirectory());
    const known = new Set([...floors.map((floor: string) => floor.split('/')[0]), 'testing']);
    expect(folders.map(({ name }) => name).filter((name) => !known.has(name))).toEqual([]);
  });

  test('imports go down, and by the index only', () => {
    expect(complaints('edit/gear/x.ts', "import { a } from '../../model/wiring';")).toEqual([]);
    expect(complaints('model/wiring/x.ts', "import { a } from '../../edit';")).toEqual(['up']);
    expect(complaints('model/tree/x.ts', "export { a } from '../switching';")).toEqual(['up']);
    expect(complaints('edit/gear/x.ts', "import { a } from '../../model/wiring/fabric';")).toEqual(['deep']);
    expect(complaints('edit/gear/x.ts', "import { a } from '../hosts/operations';")).toEqual([]);
    expect(complaints('plan/x.test.ts', "import { a } from '../edit';")).toEqual([]);
  });
});
