import { cellsUnder, tabbed } from './paste-over';

interface Row {
  readonly id: string;
  readonly name: string;
  readonly note: string;
}
const records: readonly Row[] = [
  { id: 'a', name: 'pump', note: 'north' },
  { id: 'b', name: 'valve', note: '' },
  { id: 'c', name: 'fan', note: 'tab\there' },
];
const columns = [
  { id: 'Name', text: ({ name }: Row) => name },
  { id: 'Note', text: ({ note }: Row) => note },
];
const under = (row: number, column: number, text: string) =>
  cellsUnder({ columns, records, at: { row, column }, text }).map(
    ({ record, column: { id }, text: cell }) => `${record.id} ${id} ${cell}`,
  );

describe('a block of cells pasted over a table', () => {
  it('goes to the right and down from the cell, and leaves what is the same', () => {
    expect(under(0, 1, 'pump\tsouth\nvalve-2\t')).toEqual(['a Note south', 'b Name valve-2']);
    expect(under(1, 2, ' east \nwest')).toEqual(['b Note east', 'c Note west']);
  });

  it.each([
    [2, 1, 'x\ny'],
    [0, 2, 'x\ty'],
  ])('says where there is no room (row %i, column %i)', (row, column, text) =>
    expect(() => under(row, column, text)).toThrow(/there is no room for that/),
  );

  it('comes back from a spreadsheet as it went', () => {
    const text = tabbed(columns, records);
    expect(text.split('\n')[0]).toBe('Name\tNote');
    const body = text.slice(text.indexOf('\n') + 1);
    expect(under(0, 1, body)).toEqual([]);
    // With its head too, as a table of ours is copied.
    expect(under(0, 1, text)).toEqual([]);
    expect(under(1, 2, 'Note\nsouth')).toEqual(['b Note south']);
  });

  it('is no formula in a spreadsheet, and comes back as what it was', () => {
    const designated = [{ id: 'd', name: 'relay', note: '=F1-K2' }];
    const text = tabbed(columns, designated);
    expect(text).toBe("Name\tNote\nrelay\t'=F1-K2");
    expect(under(0, 1, text)).toEqual(['a Name relay', 'a Note =F1-K2']);
  });
});
