import type { JudgedFinding } from '../session/open-findings';

/** Long lists of findings, with those of one check behind their first. */

/** More than so many of one check, and all but the first stand behind a line. */
const FEW = 3;

export type ListedFinding =
  | { readonly finding: JudgedFinding; readonly alike?: undefined }
  | { readonly alike: string; readonly count: number; readonly open: boolean };

const kindOf = ({ check, severity, accepted }: JudgedFinding): string =>
  `${check} ${severity} ${accepted ? 'accepted' : ''}`;

/**
 * The findings as listed: those of one check together, at the place of the first. `opened` are the kinds whose others are
 * shown; so is the kind of the finding one is at.
 */
export function withAlike(
  findings: readonly JudgedFinding[],
  opened: ReadonlySet<string>,
  current: string | null,
): ListedFinding[] {
  const kinds = new Map<string, JudgedFinding[]>();
  for (const finding of findings) {
    const known = kinds.get(kindOf(finding));
    if (known) known.push(finding);
    else kinds.set(kindOf(finding), [finding]);
  }
  return [...kinds].flatMap(([alike, list]): ListedFinding[] => {
    const [first, ...others] = list;
    if (list.length <= FEW) return list.map((finding) => ({ finding }));
    const open = opened.has(alike) || others.some(({ key }) => key === current);
    return [
      { finding: first! },
      { alike, count: others.length, open },
      ...(open ? others.map((finding) => ({ finding })) : []),
    ];
  });
}

/** How many findings stand in these lines. */
export const countIn = (listed: readonly ListedFinding[]): number =>
  listed.reduce((sum, row) => sum + (row.alike === undefined ? 1 : row.open ? 0 : row.count), 0);
