import { scheduleOf } from '@/core/formats';
import { siteOf } from '@/core/plan';
import { Jacket } from '../parts/jacket';
import { ColumnHeads } from '../parts/column-heads';
import { Paper } from './paper';
import { SheetTable } from './sheet-table';
import type { SheetProps } from './sheet';

/** The address schedule for paper: one block per subnet, black on white whatever the theme. */
export function SchedulePage({ siteId, plan, revision, today }: SheetProps) {
  const site = siteOf(plan);
  const blocks = scheduleOf(plan);
  return (
    <Paper siteId={siteId} title={`${site.name}: address schedule`} revision={revision} today={today}>
      {blocks.length === 0 && <p className="py-4">This site has no subnets yet.</p>}
      {blocks.map((block) => (
        <section key={block.subnet.id} className="pt-4" aria-label={`${block.vlan.name} ${block.prefix}`}>
          <div className="break-inside-avoid break-after-avoid">
            <h2 className="flex items-center gap-2 text-[16px] font-bold">
              <Jacket vlan={block.vlan} /> {block.vlan.name} <span className="mono">{block.prefix}</span>
            </h2>
            <p className="mono text-[13px]">
              mask {block.mask}; gateway {block.gateway || 'none'}; DNS {block.dns || 'none'}; domain{' '}
              {block.domain || 'none'}; {block.vlan.internet ? 'may reach the Internet' : 'no Internet'}
            </p>
            {block.pools.map((pool) => (
              <p key={pool.range} className="mono text-[13px]">
                pool {pool.range}, {pool.count} addresses, {pool.leases} leases of {pool.lease}
              </p>
            ))}
            {block.exclusions.map((item) => (
              <p key={item.range} className="mono text-[13px]">
                excluded {item.range} {item.why}
              </p>
            ))}
          </div>
          <SheetTable label={`Fixed addresses of ${block.prefix}`}>
            <ColumnHeads columns={['Address', 'Host', 'Kind', 'MAC', 'Fixed by', 'Own settings', 'Note']} />
            <tbody>
              {block.hosts.map((row, i) => (
                <tr key={i} className="break-inside-avoid">
                  <td className="mono whitespace-nowrap">{row.address}</td>
                  <td className="font-bold">{row.name}</td>
                  <td>{row.kind}</td>
                  <td className="mono whitespace-nowrap">{row.mac}</td>
                  <td className="whitespace-nowrap">{row.assignment}</td>
                  <td className="mono">{row.own}</td>
                  <td>{row.note}</td>
                </tr>
              ))}
              {block.hosts.length === 0 && (
                <tr>
                  <td colSpan={7}>no fixed addresses</td>
                </tr>
              )}
            </tbody>
          </SheetTable>
        </section>
      ))}
    </Paper>
  );
}
