import type { Figures, ProposalSheet, Weakness } from '@/core/brief';
import type { Progress } from '@/core/plan';
import { ProgressLine } from '../../parts/progress-line';

interface RowOf {
  readonly head: string;
  readonly of: (figures: Figures, weak: Weakness | undefined) => string;
}
const rows: readonly RowOf[] = [
  {
    head: 'Boxes',
    of: ({ boxes, atHand }) => (atHand > 0 ? `${boxes}, ${atHand} of them at hand` : String(boxes)),
  },
  { head: 'Ports', of: ({ ports, portsUsed }) => `${portsUsed} used of ${ports}` },
  { head: 'Power over the network', of: ({ watts }) => `${watts} W` },
  { head: 'Ways between groups closed', of: ({ apart, pairs }) => `${apart} of ${pairs}` },
  { head: 'Wishes kept', of: ({ wishes, wishesKept }) => `${wishesKept} of ${wishes}` },
  {
    head: 'Single points of failure',
    of: (_, weak) => (weak ? `${weak.points} of ${weak.tried} tried` : 'rehearsing…'),
  },
  {
    head: 'Worst single failure',
    of: (_, weak) =>
      weak ? (weak.worst ? `${weak.worst.what}: ${weak.worst.cutOff} devices cut off` : 'nothing') : '',
  },
  { head: 'Hours on site, about', of: ({ hours }) => String(hours) },
];

/** Ways to build the same, in columns with the same rows. */
export function Alternatives({
  sheets,
  chosen,
  weak,
  running,
  onChoose,
}: {
  sheets: readonly ProposalSheet[];
  chosen: string;
  weak: ReadonlyMap<string, Weakness> | null;
  running: Progress | null;
  onChoose: (key: string) => void;
}) {
  return (
    <section aria-label="Alternatives" className="mb-5">
      <table
        className="schedule table-fixed text-[14px] [&_td]:whitespace-normal [&_th]:whitespace-normal"
        aria-label="Alternatives"
      >
        <thead>
          <tr>
            <th scope="col" className="w-[168px] max-[699px]:w-[104px]">
              <span className="sr-only">What is compared</span>
            </th>
            {sheets.map(({ key, title, about }, i) => (
              <th key={key} scope="col" className={`align-top ${key === chosen ? 'bg-chosen' : ''}`}>
                <button
                  type="button"
                  aria-pressed={key === chosen}
                  className={`button ${key === chosen ? 'button-primary' : ''}`}
                  onClick={() => onChoose(key)}
                >
                  {title}
                </button>
                <span className="block pt-1 text-[13px] font-normal normal-case text-muted max-[699px]:hidden">
                  {i === 0 ? 'As your habits say: ' : ''}
                  {about}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ head, of }) => (
            <tr key={head}>
              <th scope="row" className="text-left font-bold">
                {head}
              </th>
              {sheets.map(({ key, figures }) => (
                <td key={key} className={key === chosen ? 'bg-chosen' : ''}>
                  {of(figures, weak?.get(key))}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {running && (
        <div role="status" className="pt-1 text-[14px]">
          Every box and every cable is tried without.{' '}
          <ProgressLine label="Rehearsed failures" progress={running} />
        </div>
      )}
    </section>
  );
}
