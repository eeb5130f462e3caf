'use client';

import { useMemo } from 'react';
import { type Device, type Plan, hardeningItems } from '@/core/plan';
import { hardenable, hardeningFor, hardeningTitles, tickOf } from '@/core/model/guards';
import { type HardeningPoint, hardeningOf } from '@/core/rehearse';
import { today } from '@/today';
import { authorName } from '../../session/author';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { ColumnHeads } from '../../parts/column-heads';
import { dayText } from '../../parts/dates';
import { Tick } from '../../parts/tick';

/** What is done to each box before it is left alone: ticked with who and when, and said what the plan knows of it. */
export function HardeningView({ plan }: { plan: Plan }) {
  const session = useSession();
  const device = useView((state) => state.device);
  const boxes = hardenable(plan);
  const chosen = boxes.find(({ id }) => id === device) ?? boxes[0];
  if (!chosen) return <p className="text-muted">No box with settings of its own is recorded yet.</p>;
  const tick = (devices: readonly Device[], items: readonly HardeningPoint['item'][], on: boolean) =>
    session.perform({
      operation: 'tickHardening',
      input: {
        devices: devices.map(({ id }) => id),
        items,
        done: on ? today() : null,
        by: authorName(),
      },
    });
  return (
    <>
      <table className="schedule schedule-cards text-[14px]" aria-label="Boxes to harden">
        <ColumnHeads columns={['Box', 'Done', 'Open']} className="max-[699px]:hidden" />
        <tbody>
          {boxes.map((box) => (
            <BoxRow key={box.id} plan={plan} box={box} chosen={box.id === chosen.id} />
          ))}
        </tbody>
      </table>
      <Points key={chosen.id} plan={plan} box={chosen} onTick={(items, on) => tick([chosen], items, on)}>
        {boxes.length > 1 && (
          <button
            type="button"
            className="button"
            onClick={() =>
              tick(
                boxes,
                hardeningItems.filter((item) => tickOf(plan, chosen.id, item) !== null),
                true,
              )
            }
            disabled={plan.hardening.group(chosen.id).size === 0}
          >
            Tick the same at every box
          </button>
        )}
      </Points>
    </>
  );
}

function BoxRow({ plan, box, chosen }: { plan: Plan; box: Device; chosen: boolean }) {
  const set = useView((state) => state.set);
  const items = hardeningFor(plan, box.id);
  const open = items.filter((item) => tickOf(plan, box.id, item) === null);
  return (
    <tr data-record={box.id} aria-selected={chosen} className={chosen ? 'bg-chosen' : ''}>
      <th scope="row" className="min-w-[110px] text-left">
        <button
          type="button"
          className="mono min-h-7 w-full px-1 text-left font-bold hover:underline max-[699px]:min-h-touch"
          onClick={() => set({ device: box.id, ports: [], finding: null })}
        >
          {box.name}
        </button>
      </th>
      <td className="mono whitespace-nowrap">
        {items.length - open.length} of {items.length}
      </td>
      <td>
        {open.length === 0
          ? 'nothing'
          : open.length === items.length
            ? 'everything'
            : open.map((item) => hardeningTitles[item].toLowerCase()).join(', ')}
      </td>
    </tr>
  );
}

interface PointsProps {
  readonly plan: Plan;
  readonly box: Device;
  readonly onTick: (items: readonly HardeningPoint['item'][], on: boolean) => void;
  readonly children: React.ReactNode;
}
function Points({ plan, box, onTick, children }: PointsProps) {
  const points = useMemo(() => hardeningOf(plan, box.id, today()), [plan, box]);
  return (
    <section aria-label={`Hardening of ${box.name}`} className="max-w-[860px] pt-5">
      <h3 className="border-b-2 border-ink font-bold">
        To do at <span className="mono">{box.name}</span>
      </h3>
      <ul>
        {points.map(({ item, tick, evidence, wrong }) => (
          <li key={item} className="border-b border-rule">
            <label className="flex min-h-9 items-center gap-3 py-1 max-[699px]:min-h-touch">
              <Tick
                label={`${hardeningTitles[item]}, ${box.name}`}
                checked={tick !== null}
                onChange={(on) => onTick([item], on)}
              />
              <span className="min-w-0 flex-1">
                {hardeningTitles[item]}
                {evidence !== '' && (
                  <span className={`block text-[14px] ${wrong ? 'text-stop' : 'text-muted'}`}>
                    {evidence}
                  </span>
                )}
              </span>
              {tick && (
                <span className="shrink-0 text-[14px] text-muted">
                  {dayText(tick.done)}, {tick.by}
                </span>
              )}
            </label>
          </li>
        ))}
      </ul>
      <div className="pt-2">{children}</div>
    </section>
  );
}
