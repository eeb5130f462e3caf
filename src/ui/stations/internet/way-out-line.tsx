import type { Plan, Uplink } from '@/core/plan';
import { wayOut } from '@/core/model/uplink';

/** The way out as a line of boxes: who translates has a barred end, and on the line stands the address after it. */
export function WayOutLine({ plan, uplink }: { plan: Plan; uplink: Uplink }) {
  const parts = wayOut(plan, uplink);
  return (
    <ol
      aria-label={`Way out over ${uplink.name}`}
      className="flex flex-wrap items-stretch gap-y-2 py-1 text-[14px]"
    >
      <li className="flex items-center">
        <span className="border-2 border-rule px-2 py-1 text-muted">inside</span>
        <Line text="" />
      </li>
      {parts.map(({ what, translates, after }, i) => (
        <li key={i} className="flex items-center">
          <span className="flex items-stretch border-2 border-ink bg-sheet">
            <span className={`px-2 py-1 ${i === 0 ? 'mono font-bold' : ''}`}>{what}</span>
            {translates && (
              <span
                className="flex items-center bg-ink px-1.5 text-[12px] font-bold text-sheet"
                title="translates addresses"
              >
                NAT<span className="sr-only">, translates addresses</span>
              </span>
            )}
          </span>
          <Line text={after} />
        </li>
      ))}
      <li className="flex items-center">
        <span className="mono border-2 border-ink bg-hivis px-2 py-1 font-bold text-on-hivis">Internet</span>
      </li>
    </ol>
  );
}

const Line = ({ text }: { text: string }) => (
  <span className="flex min-w-6 flex-col justify-center">
    <span className="mono px-1.5 text-[12px] leading-tight">{text}</span>
    <span className="border-t-2 border-ink" aria-hidden="true" />
    {text && <span className="text-[12px] leading-tight">&nbsp;</span>}
  </span>
);
