'use client';

import type { ReactNode } from 'react';
import { ColumnHeads } from './column-heads';
import { Dialog } from './dialog';
import { Problem } from './problem';

interface Props {
  readonly title: string;
  readonly describe: string;
  readonly placeholder: string;
  readonly text: string;
  readonly onText: (text: string) => void;
  /** What was read, summed up, and the rows themselves. */
  readonly summary: ReactNode;
  readonly heads: readonly string[];
  readonly rows: readonly { readonly line: number; readonly cells: ReactNode }[];
  readonly problem: string;
  readonly verb: 'Add' | 'Set';
  readonly good: number;
  readonly onTake: () => void;
  readonly onClose: () => void;
}

const SHOWN = 200;

/** Rows copied from a spreadsheet, each with its verdict before anything is taken over. */
export function PasteSheet(props: Props) {
  const { title, describe, placeholder, text, onText, summary, heads, rows, problem } = props;
  const { verb, good, onTake, onClose } = props;
  return (
    <Dialog title={title} open wide onClose={onClose} describe={describe}>
      <label className="block">
        Rows
        <textarea
          autoFocus
          className="field field-line mono border-2 border-ink"
          rows={6}
          placeholder={placeholder}
          value={text}
          onChange={(event) => onText(event.target.value)}
        />
      </label>
      {rows.length > 0 && (
        <>
          <p className="py-2">{summary}</p>
          <table className="schedule text-[14px]">
            <ColumnHeads columns={['Line', 'Verdict', ...heads]} />
            <tbody>
              {rows.slice(0, SHOWN).map(({ line, cells }) => (
                <tr key={line}>
                  <td className="mono">{line}</td>
                  {cells}
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > SHOWN && <p>and {rows.length - SHOWN} more rows</p>}
        </>
      )}
      <Problem text={problem} />
      <div className="sticky -bottom-3 -mb-3 flex gap-2 bg-paper py-3">
        <button type="button" className="button button-primary" disabled={good === 0} onClick={onTake}>
          {verb} {good} row{good === 1 ? '' : 's'}
        </button>
        <button type="button" className="button" onClick={onClose}>
          {verb} nothing
        </button>
      </div>
    </Dialog>
  );
}

const verdictStyle = {
  good: '',
  repaired: 'font-bold text-note',
  refused: 'font-bold text-stop',
  there: 'text-muted',
} as const;
const verdictWords = { good: 'good', repaired: 'repaired', refused: 'refused', there: 'as planned' } as const;

/** What became of a row, with why. */
export function VerdictCell({
  verdict,
  why,
}: {
  verdict: keyof typeof verdictStyle;
  why: readonly string[];
}) {
  return (
    <td className={verdictStyle[verdict]}>
      {verdictWords[verdict]}
      {why.length > 0 && <span className="block text-[13px] font-normal">{why.join('; ')}</span>}
    </td>
  );
}
