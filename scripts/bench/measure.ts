import { type Plan, planOf, tableNames } from '../../src/core/plan';

/** Each figure with its input and the ratio to the straightforward way in the same run. Medians of several runs. */
export const median = (list: number[]) => list.sort((a, b) => a - b)[Math.floor(list.length / 2)]!;
export async function time(runs: number, work: (i: number) => unknown): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await work(i);
    taken.push(performance.now() - start);
  }
  return median(taken);
}
export const show = (what: string, ms: number, baseline?: { name: string; ms: number }) =>
  console.log(
    `${what.padEnd(66)} ${ms.toFixed(2).padStart(10)} ms${baseline ? `   ${baseline.name} ${baseline.ms.toFixed(1)} ms, ${(baseline.ms / ms).toFixed(0)} times` : ''}`,
  );

/** The same plan with records of its own. */
export const copyOf = (plan: Plan): Plan =>
  planOf(Object.fromEntries(tableNames.map((table) => [table, structuredClone([...plan[table].values()])])));
