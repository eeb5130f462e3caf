'use client';

import { type Plan, portTitle } from '@/core/plan';
import type { SheetSeat, Worksheet } from '@/core/commission';
import { ColumnHeads } from '../../parts/column-heads';

/** Where to sit as a bracket, beside the steps done from there. */
export function OrderSheet({ plan, sheet }: { plan: Plan; sheet: Worksheet }) {
  const { seats, steps, boxes, recorded } = sheet;
  const firsts = seats.map((_, at) => seats.slice(0, at).reduce((sum, seat) => sum + seat.steps.length, 1));
  return (
    <>
      <p className="pb-2">
        <strong>
          {counted(steps, 'step')}, {counted(boxes, 'box', 'boxes')}, {counted(seats.length, 'place')} to sit
        </strong>
        {recorded.length > 0 && (
          <span className="text-stop">
            {' '}
            {recorded.map((port) => portTitle(plan, plan.port.get(port)!)).join(', ')} stays open for you: no
            port is planned from which the boxes are reached.
          </span>
        )}
      </p>
      <table className="schedule text-[14px]" aria-label="The order">
        <ColumnHeads columns={['Sit at', '', 'Box', 'Set', 'Reaches']} />
        {seats.map((seat, at) => (
          <SeatRows key={`${seat.socket} ${firsts[at]}`} plan={plan} seat={seat} first={firsts[at]!} />
        ))}
      </table>
    </>
  );
}

const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

function SeatRows({ plan, seat, first }: { plan: Plan; seat: SheetSeat; first: number }) {
  const port = seat.socket === null ? null : plan.port.get(seat.socket)!;
  return (
    <tbody>
      {seat.steps.map((step, i) => (
        <tr key={i}>
          {i === 0 && (
            <th
              scope="rowgroup"
              rowSpan={seat.steps.length}
              className={`w-[180px] border-2 border-ink bg-chosen p-2 text-left align-top ${seat.parachute ? 'border-dashed' : ''}`}
            >
              <span className="mono block font-bold">
                {port ? portTitle(plan, port) : `${plan.device.get(seat.device)!.name}, console`}
              </span>
              <span className="mono block text-[13px] font-normal">
                {seat.laptop ?? (port ? 'by the address it comes with' : '')}
              </span>
              {seat.parachute && <span className="block text-[13px] font-normal">parachute</span>}
            </th>
          )}
          <td className="mono text-muted">{first + i}</td>
          <td className="mono font-bold">{plan.device.get(step.device)!.name}</td>
          <td>
            {step.does}
            <span className="block text-[13px] text-muted">{step.sees}</span>
          </td>
          <td className="mono">{step.reached}</td>
        </tr>
      ))}
    </tbody>
  );
}
