import type { Telephone } from '@/core/rehearse';
import { Jacket } from '../../parts/jacket';
import { WorksMark } from '../../parts/works-mark';

function ended({ works, steps }: Telephone): string {
  if (works !== false) return works ? 'it rings' : 'it may ring';
  return steps.every(({ what, works: done }) => done !== false || what === 'Priority')
    ? 'it rings, and calls stutter when the line is full'
    : 'it does not come up as it should';
}

/** A telephone as it starts, step by step. */
export function TelephoneSteps({ met, label }: { met: Telephone; label: string }) {
  const { vlan, works, steps } = met;
  return (
    <>
      <p
        className="flex flex-wrap items-center gap-2 border-2 border-ink bg-sheet px-2 py-1.5 text-[16px]"
        role="status"
      >
        <WorksMark works={works} />
        {vlan && (
          <>
            <Jacket vlan={vlan} /> {vlan.name}:
          </>
        )}{' '}
        {ended(met)}
      </p>
      <ol className="border-l-4 border-ink py-1" aria-label={label}>
        {steps.map(({ what, says, works: done }) => (
          <li
            key={what}
            className="grid grid-cols-[26px_130px_1fr] items-baseline gap-x-2 border-b border-rule py-1 pl-2 max-[699px]:grid-cols-[26px_1fr]"
          >
            <WorksMark works={done} />
            <b>{what}</b>
            <span className={`max-[699px]:col-start-2 ${done === false ? 'text-stop' : ''}`}>
              <span className="sr-only">
                {done === true ? 'works: ' : done === false ? 'does not work: ' : 'not known: '}
              </span>
              {says}
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}
