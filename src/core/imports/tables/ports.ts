import { portColumnsOf, readPortRows } from '../../edit';
import { carriedText } from '../../model/wiring';
import { type Plan, Refusal } from '../../plan';
import { type Cells, type ReadRow, Reading, type TableKind } from '../row';

/** What ports of boxes carry; where a plug goes is read from cables. */

/** What ports were before, where they are something else now. */
function changesOf(before: Plan, after: Plan, ids: readonly string[]): string[] {
  const told = ids.flatMap((id) => {
    const [was, is] = [before.port.get(id)!, after.port.get(id)!];
    const [carried, carries] = [carriedText(before, was), carriedText(after, is)];
    return [
      ...(carried === carries ? [] : [`was ${carried}`]),
      ...(was.label === is.label ? [] : [`was labelled “${was.label}”`]),
    ];
  });
  return [...new Set(told)];
}

export const ports: TableKind = {
  id: 'ports',
  title: 'what ports carry',
  columns: [
    { id: 'box', title: 'box' },
    { id: 'ports', title: 'port' },
    { id: 'carries', title: 'carries' },
    { id: 'label', title: 'label' },
  ],
  heads: ['Box', 'Ports', 'Carries', 'Label'],
  guess: portColumnsOf,
  *read(taking, cells, columns) {
    const rows: ReadRow[] = [];
    const typed = columns as ReturnType<typeof portColumnsOf>;
    const head = columns.header ? [cells[0]!] : [];
    for (let i = head.length; i < cells.length; i++) {
      // Row by row, as one row may name what the row before it changed.
      const own: Cells = [...head, cells[i]!];
      const [row] = readPortRows(taking.plan, own, typed);
      yield;
      if (!row) continue;
      const reading = new Reading();
      const shown = [row.box, row.ports, row.carries, row.label ?? ''];
      // The inside of a box follows from the segments it routes.
      const silent = row.ports === 'inside';
      if (row.why !== null && !silent) reading.refused.push(row.why);
      const before = taking.plan;
      if (row.sets.length > 0 && !silent)
        try {
          taking.take({ operation: 'importPorts', input: { rows: row.sets } });
          reading.changed = changesOf(before, taking.plan, row.of);
        } catch (error) {
          if (!(error instanceof Refusal)) throw error;
          reading.refused.push(error.message);
        }
      rows.push(reading.row(i + 1, shown, silent || reading.changed.length === 0));
    }
    return rows;
  },
};
