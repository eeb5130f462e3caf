import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** For each test of a file another of what `make` makes of a thread with a program of the test's own. */
export function eachWithThread<T extends { readonly close: () => void }>(
  program: string,
  make: (file: string) => T,
): () => T {
  let folder: string;
  let made: T;
  beforeEach(() => {
    folder = mkdtempSync(path.join(tmpdir(), 'dianome-thread-'));
    const file = path.join(folder, 'thread.mjs');
    writeFileSync(file, `import { parentPort } from 'node:worker_threads';\n${program}`);
    made = make(file);
  });
  afterEach(() => {
    made.close();
    rmSync(folder, { recursive: true, force: true });
  });
  return () => made;
}
