import { type EntryKind, UndoSearch } from './journal';

/** What undo and redo would revert after these, oldest first; each stands for its revision. */
function after(...kinds: EntryKind[]) {
  const search = new UndoSearch();
  const entries = kinds.map((kind, i) => ({ revision: i + 1, kind })).reverse();
  for (const entry of entries) if (!search.done) search.take(entry);
  return search.found;
}

describe('what undo and redo would revert', () => {
  test.each([
    [[], { undo: null, redo: null }],
    [['change', 'change', 'undo'], { undo: 1, redo: 3 }],
    [['change', 'undo', 'redo'], { undo: 3, redo: null }],
    [['change', 'undo', 'change'], { undo: 3, redo: null }],
    [['change', 'change', 'undo', 'undo', 'redo'], { undo: 5, redo: 3 }],
    [['change', 'back'], { undo: 2, redo: null }],
    [['change', 'undo'], { undo: null, redo: 2 }],
  ] as [EntryKind[], object][])('after %j', (kinds, expected) => {
    expect(after(...kinds)).toEqual(expected);
  });

  test('is the same as with a stack of each, whatever the order', () => {
    const all: EntryKind[] = ['change', 'undo', 'redo', 'back'];
    for (let n = 0; n < 4 ** 6; n++) {
      const kinds: EntryKind[] = [];
      const [undo, redo]: [number[], number[]] = [[], []];
      for (let i = 0; i < 6; i++) {
        const kind = all[Math.floor(n / 4 ** i) % 4]!;
        // Only what there is to revert is reverted.
        if (kind === 'undo' && undo.length === 0) continue;
        if (kind === 'redo' && redo.length === 0) continue;
        kinds.push(kind);
        if (kind === 'undo') {
          undo.pop();
          redo.push(kinds.length);
        } else {
          if (kind === 'redo') redo.pop();
          else redo.length = 0;
          undo.push(kinds.length);
        }
      }
      expect(after(...kinds)).toEqual({ undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null });
    }
  });
});
