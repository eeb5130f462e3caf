'use client';

import type { Device, Plan } from '@/core/plan';
import { type GuardedPort, guardLine } from '@/core/rehearse';
import { useView } from '../../session/view';

/** The ports of a box in a row as on the case: what each is trusted with, who is seen there, and who is cut off. */
export function PortLine({ plan, device }: { plan: Plan; device: Device }) {
  const { ports: chosen, set } = useView();
  const line = guardLine(plan, device.id);
  return (
    <div
      className="grid grid-cols-[repeat(auto-fill,minmax(104px,1fr))] gap-1"
      role="group"
      aria-label="Ports"
    >
      {line.map((one) => {
        const picked = chosen.includes(one.port.id);
        return (
          <button
            key={one.port.id}
            type="button"
            aria-pressed={picked}
            className={`grid min-h-[74px] content-start border-2 px-1 text-left text-[13px] ${picked ? 'border-ink bg-chosen' : 'border-rule bg-sheet'}`}
            onClick={(event) =>
              set({
                device: device.id,
                finding: null,
                ports: event.shiftKey
                  ? picked
                    ? chosen.filter((id) => id !== one.port.id)
                    : [...chosen, one.port.id]
                  : [one.port.id],
              })
            }
          >
            <PortState plan={plan} one={one} />
          </button>
        );
      })}
    </div>
  );
}

function trustText({ held }: GuardedPort): string {
  const words = [
    held.trustsDhcp ? 'DHCP' : '',
    held.trustsArp ? 'ARP' : '',
    held.trustsRouters ? 'RA' : '',
  ].filter(Boolean);
  return words.length > 0 ? `trusted: ${words.join(' ')}` : '';
}

function PortState({ plan, one }: { plan: Plan; one: GuardedPort }) {
  const { port, seen, held, expected } = one;
  const cut = new Set(seen.filter(({ why }) => why !== null).map(({ sight }) => sight.device));
  const passes = new Set(seen.map(({ sight }) => sight.device).filter((id) => !cut.has(id)));
  const names = (ids: ReadonlySet<string>) => {
    const [first] = ids;
    const name = first === undefined ? '' : plan.device.get(first)!.name;
    return ids.size > 1 ? `${ids.size} devices` : name;
  };
  const trust = trustText(one);
  return (
    <>
      <span className="mono flex justify-between font-bold">
        {port.number}
        {held.macLimit !== null && (
          <span
            className={`font-normal ${expected > held.macLimit ? 'text-stop' : 'text-muted'}`}
            title="MAC addresses planned there, of how many it lets in"
          >
            {expected}/{held.macLimit}
          </span>
        )}
      </span>
      {trust && <span className="truncate font-semibold">{trust}</span>}
      {passes.size > 0 && <span className="[overflow-wrap:anywhere]">passes {names(passes)}</span>}
      {cut.size > 0 && (
        <span className="border-l-4 border-stop pl-1 font-semibold [overflow-wrap:anywhere] text-stop">
          cut off {names(cut)}
        </span>
      )}
      {passes.size + cut.size === 0 && <span className="truncate text-muted">nobody seen</span>}
    </>
  );
}
