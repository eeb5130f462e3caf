import { type Block, type Cell, type Signature, cellText } from '@/core/book';
import { svgOf } from '@/core/formats';
import { textOn } from '@/core/model/segments';
import { ColumnHeads } from '../parts/column-heads';
import { SheetTable } from '../schedule/sheet-table';

/** The blocks of a book on a page. */

function CellView({ cell }: { cell: Cell }) {
  if (typeof cell === 'string') return cell;
  return (
    <span
      className="mono inline-block px-1 font-bold whitespace-nowrap print:[print-color-adjust:exact]"
      style={{ background: cell.colour, color: textOn(cell.colour) }}
    >
      {cell.text}
    </span>
  );
}

function Signatures({ of }: { of: readonly Signature[] }) {
  return (
    <ul className="flex flex-wrap gap-4 py-2">
      {of.map(({ path, name, about }) => (
        <li key={`${name} ${about}`} className="break-inside-avoid">
          <svg
            viewBox="0 0 400 150"
            className="h-[75px] w-[200px]"
            role="img"
            aria-label={`Signature of ${name}`}
          >
            <path d={path} fill="none" stroke="currentColor" strokeWidth={2.5} strokeLinecap="round" />
          </svg>
          <span className="block border-t border-ink font-bold">{name}</span>
          <span className="block text-[13px]">{about}</span>
        </li>
      ))}
    </ul>
  );
}

export function BlockView({ block }: { block: Block }) {
  switch (block.kind) {
    case 'heading':
      return <h3 className="break-after-avoid pt-3 text-[16px] font-bold">{block.text}</h3>;
    case 'text':
      return <p className="max-w-[75ch] py-1">{block.text}</p>;
    case 'caution':
      return (
        <p role="note" className="my-1 max-w-[75ch] border-l-4 border-ink px-3">
          {block.text}
        </p>
      );
    case 'list': {
      const List = block.numbered ? 'ol' : 'ul';
      return (
        <List className={`max-w-[75ch] pl-6 ${block.numbered ? 'list-decimal' : 'list-disc'}`}>
          {block.items.map((item, i) => (
            <li key={i} className="py-0.5">
              {item}
            </li>
          ))}
        </List>
      );
    }
    case 'facts':
      return (
        <dl className="grid grid-cols-[max-content_1fr] gap-x-5 text-[14px]">
          {block.rows.map(([what, value]) => (
            <div key={what} className="contents">
              <dt className="text-muted">{what}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      );
    case 'table':
      return (
        <SheetTable label={block.label}>
          <ColumnHeads columns={block.columns.map(({ title }) => title)} />
          <tbody>
            {block.rows.map((row, i) => (
              <tr key={i} className="break-inside-avoid">
                {row.map((cell, column) => (
                  <td key={column} className={block.columns[column]!.mono ? 'mono' : ''}>
                    <CellView cell={cell} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </SheetTable>
      );
    case 'drawing':
      return (
        <div
          className="break-inside-avoid overflow-x-auto py-2 [&>svg]:h-auto [&>svg]:max-w-full print:[print-color-adjust:exact]"
          // What is in it was escaped where it was written.
          dangerouslySetInnerHTML={{ __html: svgOf(block.drawing) }}
        />
      );
    case 'signatures':
      return <Signatures of={block.of} />;
  }
}

/** Jackets of all segments in a row, as on the cover. */
export const Jackets = ({ of }: { of: readonly Cell[] }) => (
  <p className="flex flex-wrap gap-1 pt-2">
    {of.map((cell) => (
      <CellView key={cellText(cell)} cell={cell} />
    ))}
  </p>
);
