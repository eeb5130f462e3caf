import type { JudgedFinding } from '../session/open-findings';
import { type ListedFinding, countIn, withAlike } from './alike';

const made = (check: string, key: string, accepted = false): JudgedFinding =>
  ({ check, key, severity: 'fix', accepted: accepted ? {} : null }) as JudgedFinding;
const text = (list: readonly ListedFinding[]): string =>
  list
    .map((row) => (row.alike === undefined ? row.finding.key : `${row.count}${row.open ? '-' : '+'}`))
    .join(' ');

describe('findings alike', () => {
  const logins = ['l1', 'l2', 'l3', 'l4', 'l5'].map((key) => made('login', key));
  const list = [
    logins[0]!,
    made('pool', 'p1'),
    ...logins.slice(1),
    made('pool', 'p2'),
    made('login', 'la', true),
  ];

  test('many of one check stand behind the first; few are listed, accepted ones apart', () => {
    expect(text(withAlike(list, new Set(), null))).toBe('l1 4+ p1 p2 la');
    expect(text(withAlike(list.slice(0, 4), new Set(), null))).toBe('l1 l2 l3 p1');
    for (const current of [null, 'l4'])
      expect(countIn(withAlike(list, new Set(), current))).toBe(list.length);
  });

  test('are shown when opened, and when one is at one of them', () => {
    const [line] = withAlike(list, new Set(), null).filter(({ alike }) => alike !== undefined);
    expect(text(withAlike(list, new Set([line!.alike!]), null))).toBe('l1 4- l2 l3 l4 l5 p1 p2 la');
    expect(text(withAlike(list, new Set(), 'l4'))).toBe('l1 4- l2 l3 l4 l5 p1 p2 la');
    expect(text(withAlike(list, new Set(), 'l1'))).toBe('l1 4+ p1 p2 la');
  });
});
