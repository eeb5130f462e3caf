'use client';

import { type Plan, portTitle, vlansOf } from '@/core/plan';
import type { SheetSeat, SheetStep, Worksheet } from '@/core/commission';
import { Cautions } from '../../parts/cautions';

/** Where to sit as a bracket, beside the steps done from there. */
export function OrderSheet({ plan, sheet }: { plan: Plan; sheet: Worksheet }) {
  const { seats, steps, boxes, recorded } = sheet;
  const firsts = seats.map((_, at) => seats.slice(0, at).reduce((sum, seat) => sum + seat.steps.length, 1));
  return (
    <>
      <p className="pb-2">
        <strong>
          {counted(steps, 'step')}, {counted(boxes, 'box', 'boxes')}, {counted(seats.length, 'seat')}
        </strong>
        {recorded.length > 0 && (
          <span className="text-stop">
            {' '}
            {recorded.map((port) => portTitle(plan, plan.port.get(port)!)).join(', ')} stays open for you: no
            socket is planned from which the boxes are reached. Plan one in the management segment.
          </span>
        )}
      </p>
      <Cautions
        purposes={vlansOf(plan)
          .map(({ purpose }) => purpose)
          .filter((purpose) => purpose === 'control-cell' || purpose === 'supervisory')}
      />
      <div
        aria-hidden
        className="sticky -top-3 z-10 flex border-b-2 border-ink bg-sheet pt-3 text-[13px] text-muted max-[699px]:hidden"
      >
        <span className="w-[178px]">sit at</span>
        <span className="flex-1 pl-9">step</span>
        <span className="pr-1">boxes still reached</span>
      </div>
      <ol aria-label="The order">
        {seats.map((seat, at) => (
          <Seat key={`${seat.socket} ${firsts[at]}`} plan={plan} seat={seat} first={firsts[at]!} />
        ))}
      </ol>
    </>
  );
}

const counted = (count: number, one: string, many = `${one}s`): string =>
  `${count} ${count === 1 ? one : many}`;

function Seat({ plan, seat, first }: { plan: Plan; seat: SheetSeat; first: number }) {
  const port = seat.socket === null ? null : plan.port.get(seat.socket)!;
  const place = port ? portTitle(plan, port) : `${plan.device.get(seat.device)!.name}, console`;
  return (
    <li className="flex items-stretch gap-2 pt-2 max-[699px]:block" aria-label={`At ${place}`}>
      <div
        className={`w-[170px] shrink-0 border-2 border-ink p-2 max-[699px]:w-auto ${seat.parachute ? 'border-dashed' : 'bg-chosen'}`}
      >
        <div className="sticky top-6 max-[699px]:static">
          <strong className="mono block">{place}</strong>
          <span className="mono block text-[13px]">{seat.laptop?.split(' ').join('\u00a0/ ')}</span>
          <span className="block text-[13px] text-muted">{aside(seat)}</span>
        </div>
      </div>
      <table
        className="schedule min-w-0 flex-1 text-[14px] max-[699px]:block"
        aria-label={`Steps at ${place}`}
      >
        <tbody className="max-[699px]:block">
          {seat.steps.map((step, i) => (
            <StepRow key={i} plan={plan} step={step} number={first + i} />
          ))}
        </tbody>
      </table>
    </li>
  );
}

const aside = ({ socket, laptop, parachute }: SheetSeat): string =>
  parachute
    ? 'parachute'
    : socket === null
      ? 'no socket reaches it'
      : laptop === null
        ? 'an address beside the one it comes with'
        : '';

/** What must be seen goes without saying where a port is set. */
const isPlain = ({ kind }: SheetStep): boolean => kind === 'port' || kind === 'vlans';

function StepRow({ plan, step, number }: { plan: Plan; step: SheetStep; number: number }) {
  const { device, does, sees, reached, of } = step;
  return (
    <tr className="max-[699px]:grid max-[699px]:grid-cols-[2.2rem_1fr_auto] max-[699px]:border-b max-[699px]:border-rule max-[699px]:py-1 max-[699px]:[&>*]:border-0">
      <td className="mono w-8 text-right text-muted">{number}</td>
      <th scope="row" className="mono w-[110px] text-left whitespace-nowrap max-[699px]:w-auto">
        {plan.device.get(device)!.name}
      </th>
      <td className="max-[699px]:order-last max-[699px]:col-span-2 max-[699px]:col-start-2">
        {does}
        {!isPlain(step) && <span className="block text-[13px] text-muted">{sees}</span>}
      </td>
      <td className="mono w-16 text-right whitespace-nowrap max-[699px]:w-auto">
        {of > 0 && (reached === of ? reached : `${reached} of ${of}`)}
      </td>
    </tr>
  );
}
