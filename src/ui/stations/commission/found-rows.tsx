'use client';

import type { FoundRow, FoundVerdict } from '@/core/commission';
import type { Severity } from '@/core/findings';
import { useSite } from '../../session/context';
import { useLog, useLogBook } from '../../session/log-context';
import { useView } from '../../session/view';
import { ColumnHeads } from '../../parts/column-heads';
import { SeverityMark } from '../../parts/marks';

/** What a verdict weighs: what is wrong, what fails later, what the plan does not know. */
const weighs: Readonly<Record<Exclude<FoundVerdict, 'as planned'>, Severity>> = {
  'second server': 'stop',
  'address of another': 'stop',
  'other segment': 'stop',
  'other port': 'fix',
  'other network': 'fix',
  'in the pool': 'fix',
  'other address': 'fix',
  unknown: 'note',
  'not recorded': 'note',
};
type Otherwise = FoundRow & { readonly verdict: keyof typeof weighs };
const isOtherwise = (row: FoundRow): row is Otherwise => row.verdict !== 'as planned';

/** So many are drawn; whoever has more mends some first. */
const SHOWN = 200;

/** Everything that was found, the worst first, each to be taken into the plan or opened as a defect. */
export function FoundRows({ rows }: { rows: readonly FoundRow[] }) {
  const set = useView((state) => state.set);
  const good = rows.filter(({ verdict }) => verdict === 'as planned');
  const others = rows.filter(isOtherwise);
  const recorded = others.flatMap(({ verdict, take }) =>
    verdict === 'not recorded' && take ? [take.call] : [],
  );
  return (
    <>
      <p role="status" className="pb-2">
        <strong>{good.length} as planned</strong>, {others.length} otherwise
        {recorded.length > 1 && (
          <button
            type="button"
            className="button ml-3"
            onClick={() =>
              set({
                review: {
                  title: `Record what was not recorded: ${recorded.length} times`,
                  call: {
                    operation: 'several',
                    input: { label: `As found: ${recorded.length} records`, calls: recorded },
                  },
                  accept: 'Take it into the plan',
                },
              })
            }
          >
            Record all {recorded.length} that were not recorded…
          </button>
        )}
      </p>
      {others.length > 0 && (
        <table className="schedule schedule-stacked max-w-[1100px] text-[14px]" aria-label="As found">
          <ColumnHeads
            className="max-[699px]:hidden"
            columns={['Who', 'Verdict', 'Found', 'Planned', 'What to do']}
          />
          <tbody>
            {others.slice(0, SHOWN).map((row) => (
              <FoundLine key={row.key} row={row} />
            ))}
          </tbody>
        </table>
      )}
      {others.length > SHOWN && <p>and {others.length - SHOWN} more</p>}
      {good.length > 0 && (
        <details className="pt-3 text-[14px]">
          <summary className="cursor-pointer">{good.length} as planned</summary>
          <ul className="mono columns-3 max-[699px]:columns-1">
            {good.slice(0, SHOWN).map(({ key, who, found }) => (
              <li key={key}>
                {who} {found}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}

function FoundLine({ row }: { row: Otherwise }) {
  const { who, verdict, found, planned, sentence, take, about } = row;
  const book = useLogBook();
  const revision = useSite((state) => state.revision);
  const set = useView((state) => state.set);
  const opened = useLog(({ log }) =>
    log.defects.some((defect) => defect.state === 'open' && defect.opened.body.text === sentence),
  );
  return (
    <tr title={sentence}>
      <th scope="row" className="mono text-left">
        {who}
      </th>
      <td>
        <span className="flex items-center gap-1 font-bold">
          <SeverityMark severity={weighs[verdict]} />
          {verdict}
        </span>
      </td>
      <td className="mono">
        <span className="hidden max-[699px]:inline">found: </span>
        {found}
      </td>
      <td className="mono">
        <span className="hidden max-[699px]:inline">planned: </span>
        {planned}
      </td>
      <td className="no-print">
        <span className="flex gap-2 py-1 whitespace-nowrap">
          {take && (
            <button
              type="button"
              className="button"
              aria-label={`take it in…: ${take.title}`}
              onClick={() =>
                set({ review: { title: take.title, call: take.call, accept: 'Take it into the plan' } })
              }
            >
              take it in…
            </button>
          )}
          {opened ? (
            <span className="text-muted">a defect is open</span>
          ) : (
            <button
              type="button"
              className="button"
              aria-label={`defect: ${sentence}`}
              onClick={() =>
                void book.add({ kind: 'defect', text: sentence, about, run: null, photos: [] }, revision)
              }
            >
              defect
            </button>
          )}
        </span>
      </td>
    </tr>
  );
}
