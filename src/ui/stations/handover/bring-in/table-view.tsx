import { type AskedTable, type ReadRow, type ReadTable, tableKindOf, tableKinds } from '@/core/imports';
import { Choice } from '../../../parts/choice';
import { ColumnChoices } from '../../../parts/column-choices';
import { ColumnHeads } from '../../../parts/column-heads';
import { VerdictCell } from '../../../parts/paste-sheet';
import { Toggle } from '../../../parts/tick';

const SHOWN = 200;
/** Two refusals under thirty good rows would not be seen. */
const worstFirst: readonly ReadRow['verdict'][] = ['refused', 'repaired', 'good', 'there'];

/** One table: what it is about, which column is what, and its rows with their verdicts. */
export function TableView({
  asked,
  read,
  onChange,
}: {
  asked: AskedTable;
  read: ReadTable | null;
  onChange: (fields: Partial<AskedTable>) => void;
}) {
  const kind = tableKindOf(asked.kind);
  const guess = kind.guess(asked.cells);
  const order = asked.order ?? guess.order;
  const rows = read?.kind === asked.kind ? read.rows : [];
  const count = (verdict: ReadRow['verdict']) => rows.filter((row) => row.verdict === verdict).length;
  const sorted = [...rows].sort((a, b) => worstFirst.indexOf(a.verdict) - worstFirst.indexOf(b.verdict));
  return (
    <section aria-label={asked.title} className="border-t-2 border-ink py-2">
      <div className="flex flex-wrap items-center gap-3">
        <Toggle
          label={asked.title}
          checked={!asked.leftOut}
          onChange={(kept) => onChange({ leftOut: !kept })}
        />
        <span className="border-b border-ink">
          <Choice
            label={`${asked.title} is about`}
            value={asked.kind}
            options={tableKinds.map(({ id, title }) => ({ value: id, label: title }))}
            onChoose={(id) => onChange({ kind: id, order: null })}
          />
        </span>
        <span role="status">
          <b>{count('good')}</b> good, <b>{count('repaired')}</b> repaired, <b>{count('refused')}</b> refused,{' '}
          <b>{count('there')}</b> as planned.
        </span>
      </div>
      {!asked.leftOut && (
        <>
          <p className="pt-1 text-muted">
            Columns {guess.header ? 'by the head row' : 'by what they hold'}; put right what is wrong:
          </p>
          <ColumnChoices order={order} columns={kind.columns} onChoose={(own) => onChange({ order: own })} />
          {rows.length > 0 && (
            <div className="overflow-x-auto" role="group" aria-label={`Rows of ${asked.title}`} tabIndex={0}>
              <table className="schedule mt-2 text-[14px]">
                <ColumnHeads columns={['Line', 'Verdict', ...kind.heads]} />
                <tbody>
                  {sorted.slice(0, SHOWN).map((row) => (
                    <tr key={row.line}>
                      <td className="mono">{row.line}</td>
                      <VerdictCell verdict={row.verdict} why={row.why} />
                      {row.cells.map((cell, i) => (
                        <td key={i} className="mono">
                          {cell}
                        </td>
                      ))}
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          )}
          {rows.length > SHOWN && <p>and {rows.length - SHOWN} more rows</p>}
        </>
      )}
    </section>
  );
}
