import fc from 'fast-check';
import { Collection, groupBy } from '../plan';
import { repeated } from './repeated';

interface Named {
  readonly id: string;
  readonly name: string | null;
}

describe('records that share a key', () => {
  const lists = fc.array(fc.option(fc.stringMatching(/^[ab]{0,3}$/), { nil: null }), { maxLength: 40 });

  it('are those a grouping of all finds, also after edits', () => {
    fc.assert(
      fc.property(lists, lists, (first, later) => {
        let records = Collection.of<Named>(
          { table: 0, bucket: ({ id }) => id.slice(-1), indexes: {} },
          first.map((name, i) => ({ id: `r${i}`, name })),
        );
        later.forEach((name, i) => {
          const id = `r${i * 2}`;
          records = records.with(id, i % 5 === 4 ? null : { id, name });
        });
        const all = [...records.values()].filter((record) => record.name !== null);
        const expected = [...groupBy(all, (record) => record.name!)]
          .filter(([, list]) => list.length > 1)
          .map(([name, list]) => [name, list.map((record) => record.id).sort()]);
        const found = [...repeated(records, (record) => record.name)].map(([name, list]) => [
          name,
          list.map((record) => record.id).sort(),
        ]);
        expect(found.sort()).toEqual(expected.sort());
      }),
    );
  });
});
