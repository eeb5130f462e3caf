import {
  type PageName,
  type SettingLine,
  type SettingsSheet,
  alsoCalled,
  pageTitles,
} from '@/core/commission';
import { Tick } from '../parts/tick';

/** What is ticked of a box, and how it is said. */
export interface Ticking {
  readonly isDone: (page: PageName, line: SettingLine) => boolean;
  readonly onTick: (page: PageName, lines: readonly SettingLine[], done: boolean) => void;
}

/** The pages of settings of a box, or of several alike; each line with a square to tick, on the screen and on paper. */
export function SettingsBlock({ sheet, ticking }: { sheet: SettingsSheet; ticking?: Ticking }) {
  const { devices, model, pages } = sheet;
  const names = devices.map(({ name }) => name).join(', ');
  const title = devices.length > 1 ? `The same at ${names}` : names;
  return (
    <section aria-label={title} className="pt-4">
      <h3 className="flex flex-wrap items-baseline gap-x-3 border-b-2 border-ink text-[16px] font-bold break-after-avoid">
        <span className={devices.length > 1 ? '' : 'mono'}>{title}</span>
        <span className="text-[13px] font-normal">{model}</span>
      </h3>
      {pages.length === 0 && <p className="py-1">Nothing but what is the same at all of its model.</p>}
      {pages.map(({ page, lines }) => (
        <div key={page} className="flex gap-3 border-b border-rule py-1.5 max-[699px]:block">
          <div className="w-[170px] shrink-0 break-after-avoid max-[699px]:w-auto">
            <h4 className="flex items-center gap-2 font-bold">
              {ticking && <PageTick page={page} lines={lines} ticking={ticking} />}
              {pageTitles[page]}
            </h4>
            {alsoCalled[page] && <p className="text-[12px] text-muted">{alsoCalled[page]}</p>}
          </div>
          <dl className="min-w-0 flex-1 text-[14px]">
            {lines.map((line, i) => (
              <Line key={i} page={page} line={line} {...(ticking && { ticking })} />
            ))}
          </dl>
        </div>
      ))}
    </section>
  );
}

/** All lines of a page at once. */
function PageTick({
  page,
  lines,
  ticking,
}: {
  page: PageName;
  lines: readonly SettingLine[];
  ticking: Ticking;
}) {
  const done = lines.filter((line) => ticking.isDone(page, line)).length;
  return (
    <span className="no-print">
      <Tick
        label={`All of ${pageTitles[page]} is set`}
        checked={done === lines.length}
        mixed={done > 0 && done < lines.length}
        onChange={(next) =>
          ticking.onTick(
            page,
            lines.filter((line) => ticking.isDone(page, line) !== next),
            next,
          )
        }
      />
    </span>
  );
}

function Line({ page, line, ticking }: { page: PageName; line: SettingLine; ticking?: Ticking }) {
  const { what, value } = line;
  const done = ticking?.isDone(page, line) ?? false;
  return (
    <div className="relative flex items-baseline gap-2 break-inside-avoid border-b border-rule py-0.5 last:border-0">
      <span
        aria-hidden
        className={`hidden h-3 w-3 shrink-0 self-center border border-ink print:block ${done ? 'bg-ink' : ''}`}
      />
      <dt
        className={`${value === '' ? 'flex-1' : 'w-[220px] shrink-0 max-[699px]:w-[120px]'} ${done ? 'text-muted' : ''}`}
      >
        {ticking ? (
          <label className="flex min-h-7 items-center gap-2 max-[699px]:min-h-touch print:min-h-0">
            <span className="no-print">
              <Tick
                label={[what, value, 'is set'].filter(Boolean).join(' ')}
                checked={done}
                onChange={(next) => ticking.onTick(page, [line], next)}
              />
            </span>
            <span className="min-w-0">{what}</span>
          </label>
        ) : (
          what
        )}
      </dt>
      <dd
        className={value === '' ? 'sr-only' : `mono min-w-0 flex-1 text-[13px] ${done ? 'text-muted' : ''}`}
      >
        {value || 'to do'}
      </dd>
    </div>
  );
}
