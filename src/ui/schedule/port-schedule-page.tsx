import { type BoxBlock, boxPlace, portScheduleOf } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { ColumnHeads } from '../parts/column-heads';
import { Paper } from './paper';
import { SheetTable } from './sheet-table';
import type { SheetProps } from './sheet';

/** The port schedule for paper: one block per box, to tape beside it. */
export function PortSchedulePage({ siteId, plan, revision, today }: SheetProps) {
  const blocks = portScheduleOf(plan);
  return (
    <Paper siteId={siteId} title={`${siteOf(plan).name}: port schedule`} revision={revision} today={today}>
      {blocks.length === 0 && <p className="py-4">This site has no boxes yet.</p>}
      {blocks.map((block) => (
        <Block key={block.device.id} block={block} />
      ))}
    </Paper>
  );
}

function Block({ block }: { block: BoxBlock }) {
  const mapped = block.mapped ? ['In the config', 'Inside'] : [];
  return (
    <section className="pt-4" aria-label={block.device.name}>
      <div className="break-inside-avoid break-after-avoid">
        <h2 className="flex flex-wrap items-baseline gap-x-3 text-[16px] font-bold">
          <span className="mono">{block.device.name}</span>
          <span className="mono text-[14px]">{block.addresses.join(', ')}</span>
        </h2>
        <p className="text-[13px]">{[block.box.model, boxPlace(block)].filter(Boolean).join('; ')}</p>
      </div>
      <SheetTable label={`Ports of ${block.device.name}`}>
        <ColumnHeads columns={['Port', ...mapped, 'Carries', 'Leads to', 'Cable', 'Label']} />
        <tbody>
          {block.ports.map(({ port, number, carries, leadsTo, cable }) => (
            <tr key={port.id} className="break-inside-avoid">
              <td className="mono font-bold whitespace-nowrap">{number}</td>
              {block.mapped && (
                <>
                  <td className="mono">{port.name}</td>
                  <td className="mono">{port.index}</td>
                </>
              )}
              <td>{carries}</td>
              <td className="font-bold">{leadsTo}</td>
              <td>{cable}</td>
              <td>{port.label}</td>
            </tr>
          ))}
        </tbody>
      </SheetTable>
    </section>
  );
}
