import { portsOf, rangeText } from '@/core/model/wiring';
import type { Plan } from '@/core/plan';

/** So many columns of ports stand beside each other on a phone; more are folded. */
const COLUMNS = 12;

/** The face of a box with the sockets marked that are spoken of. */
export function PortPicture({
  plan,
  device,
  marked,
  seat = null,
}: {
  plan: Plan;
  device: string;
  marked: readonly string[];
  /** Where one sits. */
  seat?: string | null;
}) {
  const ports = portsOf(plan, device).filter(({ number }) => number > 0);
  const wanted = ports.filter(({ id }) => marked.includes(id)).sort((a, b) => a.number - b.number);
  if (wanted.length === 0) return null;
  const columns = Math.max(...ports.map(({ column }) => column)) + 1;
  const folds = Math.ceil(columns / COLUMNS);
  const perFold = Math.ceil(columns / folds);
  const { name } = plan.device.get(device)!;
  const rows = Math.min(...ports.map(({ row }) => row));
  return (
    <div
      role="img"
      aria-label={`The face of ${name} with ${wanted.length > 1 ? 'ports' : 'port'} ${rangeText(wanted)} marked${ports.some(({ id }) => id === seat) ? `, you sit at ${plan.port.get(seat!)!.number}` : ''}`}
      className="own-colours inline-flex max-w-full flex-col gap-2 bg-[#1d2823] p-2"
    >
      {Array.from({ length: folds }, (_, fold) => (
        <span key={fold} className="grid justify-start gap-1">
          {ports
            .filter(({ column }) => Math.floor(column / perFold) === fold)
            .map(({ id, number, row, column }) => (
              <span
                key={id}
                style={{ gridRow: row - rows + 1, gridColumn: (column % perFold) + 1 }}
                className={`mono flex h-6 w-6 items-center justify-center text-[12px] ${
                  marked.includes(id)
                    ? 'bg-hivis font-bold text-on-hivis'
                    : id === seat
                      ? 'border-2 border-hivis text-hivis'
                      : 'border border-[#5b6a62] text-[#9fb0a6]'
                }`}
              >
                {number}
              </span>
            ))}
        </span>
      ))}
    </div>
  );
}
