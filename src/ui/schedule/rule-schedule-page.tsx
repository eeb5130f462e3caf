import { ruleCells, ruleHead, ruleScheduleOf } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { explainZone, zonesOf } from '@/core/model/policy';
import { ColumnHeads } from '../parts/column-heads';
import { Paper } from './paper';
import { SheetTable } from './sheet-table';
import type { SheetProps } from './sheet';

/** The rule schedule for paper: each zone in one sentence, then every line in the order in which it is asked. */
export function RuleSchedulePage({ siteId, plan, revision, today }: SheetProps) {
  const lines = ruleScheduleOf(plan, today);
  return (
    <Paper siteId={siteId} title={`${siteOf(plan).name}: rule schedule`} revision={revision} today={today}>
      <section className="pt-4" aria-label="Zones">
        <h2 className="text-[16px] font-bold">Zones</h2>
        {zonesOf(plan).length === 0 && <p>No zones are recorded: nothing is filtered inside.</p>}
        <ul className="text-[13px]">
          {zonesOf(plan).map((zone) => (
            <li key={zone.id} className="break-inside-avoid py-0.5">
              {explainZone(plan, zone)}
            </li>
          ))}
        </ul>
      </section>
      <section className="pt-4" aria-label="Lines">
        <h2 className="text-[16px] font-bold">Lines, the first that fits decides</h2>
        <SheetTable label="Lines of the schedule">
          <ColumnHeads columns={ruleHead} />
          <tbody>
            {lines.map((line, i) => (
              <tr key={i} className="break-inside-avoid">
                {ruleCells(line, i).map((cell, column) => (
                  <td key={column} className={column === 2 ? 'font-bold' : column === 6 ? 'mono' : ''}>
                    {cell}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </SheetTable>
      </section>
    </Paper>
  );
}
