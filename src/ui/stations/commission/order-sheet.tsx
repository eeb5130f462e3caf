'use client';

import type { ReactNode } from 'react';
import { type Plan, portTitle } from '@/core/plan';
import {
  type OrderEdit,
  type SheetSeat,
  type SheetStep,
  type Worksheet,
  lentText,
  socketTitle,
  wayInto,
} from '@/core/commission';
import { WorkCautions } from '../../parts/cautions';
import { useOrderLook } from './order-times';
import { WayBack } from '../../parts/way-back';
import { counted } from '../../parts/counted';
import { SortableRows, useSortableRow } from '../../parts/sortable-rows';

interface Props {
  readonly plan: Plan;
  readonly sheet: Worksheet;
  readonly onEdit: (edit: OrderEdit) => void;
  readonly children: ReactNode;
}

/** Where to sit as a bracket, beside the steps done from there; steps can be put elsewhere. */
export function OrderSheet({ plan, sheet, onEdit, children }: Props) {
  const { seats, steps, boxes, recorded } = sheet;
  const all = seats.flatMap((seat) => seat.steps);
  const idOf = ({ at }: SheetStep) => String(at);
  const move = (id: string, to: number) => {
    const { at, count } = all.find((step) => idOf(step) === id)!;
    const others = all.filter((step) => idOf(step) !== id);
    const next = others[to];
    // Counted among the entries that are left when it is taken out.
    const place = next ? next.at - (next.at > at ? count : 0) : others.at(-1)!.at + others.at(-1)!.count;
    onEdit({ kind: 'move', at, count, to: next ? place : place - (place > at ? count : 0) });
  };
  const cut = all.find((step) => step.cut !== '');
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
      {children}
      {cut && (
        <p role="alert" className="flex flex-wrap items-center gap-2 border-2 border-stop px-2 py-1">
          <span className="min-w-0 flex-1">
            Step {all.indexOf(cut) + 1} must not stand there. {cut.cut}
          </span>
          <button
            type="button"
            className="button button-primary"
            onClick={() => onEdit({ kind: 'mend', keep: cut.at })}
          >
            Work out anew from there
          </button>
        </p>
      )}
      <WorkCautions plan={plan} />
      <div
        aria-hidden
        className="sticky -top-3 z-10 flex border-b-2 border-ink bg-sheet pt-3 text-[13px] text-muted max-[699px]:hidden"
      >
        <span className="w-[178px]">sit at</span>
        <span className="flex-1 pl-9">step</span>
        <span className="pr-1">boxes still reached</span>
      </div>
      <SortableRows
        ids={all.map(idOf)}
        nameOf={(id) => `step ${all.findIndex((step) => idOf(step) === id) + 1}`}
        onMove={move}
      >
        <ol aria-label="The order">
          {seats.map((seat, at) => (
            <Seat key={`${seat.socket} ${firsts[at]}`} plan={plan} seat={seat} first={firsts[at]!} />
          ))}
        </ol>
      </SortableRows>
    </>
  );
}

function Seat({ plan, seat, first }: { plan: Plan; seat: SheetSeat; first: number }) {
  const place =
    seat.socket === null ? `${plan.device.get(seat.device)!.name}, console` : socketTitle(plan, seat.socket);
  return (
    <li className="flex items-stretch gap-2 pt-2 max-[699px]:block" aria-label={`At ${place}`}>
      <div
        className={`w-[170px] shrink-0 border-2 border-ink p-2 max-[699px]:w-auto ${seat.parachute ? 'border-dashed' : 'bg-chosen'}`}
      >
        <div className="sticky top-6 max-[699px]:static">
          <strong className="mono block">{place}</strong>
          <span className="mono block text-[13px]">{seat.laptop?.split(' ').join('\u00a0/ ')}</span>
          <span className="block text-[13px] text-muted">{aside(plan, seat)}</span>
          {seat.lent !== null && <span className="block text-[13px]">{lentText(plan, seat.lent)}</span>}
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

const aside = (plan: Plan, { socket, device, laptop, given, parachute }: SheetSeat): string =>
  parachute
    ? 'parachute: the socket you gave yourself'
    : socket === null
      ? (wayInto(plan, device).find(({ what }) => what === 'Console')?.value ?? 'no socket reaches it')
      : given
        ? 'with the address everybody gets there'
        : laptop === null
          ? 'an address in the subnet it comes with'
          : '';

/** What must be seen goes without saying where a port is set. */
const isPlain = ({ kind }: SheetStep): boolean => kind === 'port' || kind === 'vlans';

function StepRow({ plan, step, number }: { plan: Plan; step: SheetStep; number: number }) {
  const { device, does, sees, reached, of, cut, at } = step;
  const { setNodeRef, style, handle } = useSortableRow(String(at));
  const shown = useOrderLook((state) => state.back) && step.back !== '';
  return (
    <tr
      ref={setNodeRef}
      style={style}
      className="max-[699px]:grid bg-sheet max-[699px]:grid-cols-[2.2rem_1fr_auto_auto] max-[699px]:border-b max-[699px]:border-rule max-[699px]:py-1 max-[699px]:[&>*]:border-0"
    >
      <td className="mono w-8 text-right text-muted">{number}</td>
      <th scope="row" className="mono w-[110px] text-left whitespace-nowrap max-[699px]:w-auto">
        {plan.device.get(device)!.name}
      </th>
      <td className="max-[699px]:order-last max-[699px]:col-span-3 max-[699px]:col-start-2">
        {does}
        {cut !== '' && <strong className="block text-[13px] text-stop">{cut}</strong>}
        {!isPlain(step) && <span className="block text-[13px] text-muted">{sees}</span>}
        {shown && <WayBack step={step} />}
      </td>
      <td className="mono w-16 text-right whitespace-nowrap max-[699px]:w-auto">
        {of > 0 && (reached === of ? reached : `${reached} of ${of}`)}
      </td>
      <td className="no-print w-7">{handle(`step ${number}`)}</td>
    </tr>
  );
}
