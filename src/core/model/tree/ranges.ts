/** Sets of VLAN ids as text, like 10-20,99. */

/** The ids in a text; null when it is none, or an id is not from 1 to 4094. */
export function parseVids(text: string): ReadonlySet<number> | null {
  const vids = new Set<number>();
  for (const part of text.split(',')) {
    if (part.trim() === '') continue;
    const match = /^\s*(\d{1,4})\s*(?:[-–]\s*(\d{1,4})\s*)?$/.exec(part);
    if (!match) return null;
    const [from, to] = [Number(match[1]), Number(match[2] ?? match[1])];
    if (from < 1 || to > 4094 || to < from) return null;
    for (let vid = from; vid <= to; vid++) vids.add(vid);
  }
  return vids;
}

/** The shortest text of a set, rising. */
export function formatVids(vids: Iterable<number>): string {
  const runs: [number, number][] = [];
  for (const vid of [...vids].sort((a, b) => a - b)) {
    const run = runs.at(-1);
    if (run && vid === run[1] + 1) run[1] = vid;
    else runs.push([vid, vid]);
  }
  return runs.map(([from, to]) => (from === to ? `${from}` : `${from}-${to}`)).join(',');
}
