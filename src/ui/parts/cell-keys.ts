import type { KeyboardEvent } from 'react';

/** What of a cell takes the focus. */
const FOCUSABLE = 'input, button, textarea';

/** Row and column of the cell an event came from. */
export function cellOf(target: EventTarget): { readonly row: number; readonly column: number } | null {
  const cell = (target as HTMLElement).closest<HTMLElement>('[data-cell]');
  if (!cell) return null;
  const [row, column] = cell.dataset.cell!.split(' ').map(Number) as [number, number];
  return { row, column };
}

const elementAt = (grid: Element, row: number, column: number): HTMLElement | null =>
  grid.querySelector(`[data-cell="${row} ${column}"]`)?.querySelector<HTMLElement>(FOCUSABLE) ?? null;

function focusOn(element: HTMLElement): void {
  element.focus();
  if (element instanceof HTMLInputElement) element.select();
}

/** Is the caret at the end it would leave by? */
function leaves(target: EventTarget, key: string): boolean {
  if (!(target instanceof HTMLInputElement)) return true;
  const { selectionStart: start, selectionEnd: end, value } = target;
  if (start === 0 && end === value.length) return true;
  return key === 'ArrowLeft' ? start === 0 && end === 0 : start === value.length && end === value.length;
}

/**
 * From cell to cell by the arrow keys, as in a spreadsheet: up and down in a column; left and right once the caret is at the end of
 * what is typed. Cells with nothing to set are passed over. A row that is not drawn yet is brought into view first.
 */
export function moveByKey(
  event: KeyboardEvent<HTMLElement>,
  rows: number,
  columns: number,
  bringIntoView: (row: number) => void,
): void {
  const { key, currentTarget: grid } = event;
  if (event.altKey || event.ctrlKey || event.metaKey || event.shiftKey || event.defaultPrevented) return;
  const at = cellOf(event.target);
  if (!at) return;
  if (key === 'ArrowLeft' || key === 'ArrowRight') {
    if (!leaves(event.target, key)) return;
    const step = key === 'ArrowRight' ? 1 : -1;
    for (let column = at.column + step; column >= 0 && column < columns; column += step) {
      const next = elementAt(grid, at.row, column);
      if (!next) continue;
      event.preventDefault();
      return focusOn(next);
    }
  }
  if (key !== 'ArrowUp' && key !== 'ArrowDown') return;
  // A choice opens by these.
  if ((event.target as HTMLElement).matches('[role=combobox]')) return;
  const row = at.row + (key === 'ArrowDown' ? 1 : -1);
  if (row < 0 || row >= rows) return;
  event.preventDefault();
  const next = elementAt(grid, row, at.column);
  if (next) return focusOn(next);
  bringIntoView(row);
  requestAnimationFrame(() => {
    const drawn = elementAt(grid, row, at.column);
    if (drawn) focusOn(drawn);
  });
}
