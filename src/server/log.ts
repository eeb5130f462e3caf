/** One line of JSON for each thing worth knowing: never what a plan holds, nor who somebody is. */

export type Level = 'info' | 'warn' | 'error';

type Said = Readonly<Record<string, unknown>>;

/** An error as its kind, code and place; its message may hold what somebody typed. */
const plain = (error: Error & { readonly code?: unknown }) => ({
  kind: error.name,
  code: error.code,
  stack: (error.stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 6)
    .map((line) => line.trim()),
});

export function log(level: Level, said: Said): void {
  const entries = Object.entries(said).map(([key, value]) => [
    key,
    value instanceof Error ? plain(value) : value,
  ]);
  const line = { time: new Date().toISOString(), level, ...Object.fromEntries(entries) };
  // Standard error, which the start command puts into a file.
  process.stderr.write(`${JSON.stringify(line)}\n`);
}
