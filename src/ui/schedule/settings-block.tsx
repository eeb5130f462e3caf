import { type SettingsSheet, alsoCalled, pageTitles } from '@/core/commission';

/** The pages of settings of a box, or of several alike, each line with a square to tick on paper. */
export function SettingsBlock({ sheet }: { sheet: SettingsSheet }) {
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
            <h4 className="font-bold">{pageTitles[page]}</h4>
            {alsoCalled[page] && <p className="text-[12px] text-muted">{alsoCalled[page]}</p>}
          </div>
          <dl className="min-w-0 flex-1 text-[14px]">
            {lines.map(({ what, value }, i) => (
              <div
                key={i}
                className="relative flex items-baseline gap-2 break-inside-avoid border-b border-rule py-0.5 last:border-0"
              >
                <span
                  aria-hidden
                  className="hidden h-3 w-3 shrink-0 self-center border border-ink print:block"
                />
                <dt className={value === '' ? 'flex-1' : 'w-[220px] shrink-0 max-[699px]:w-[120px]'}>
                  {what}
                </dt>
                <dd className={value === '' ? 'sr-only' : 'mono min-w-0 flex-1 text-[13px]'}>
                  {value || 'to do'}
                </dd>
              </div>
            ))}
          </dl>
        </div>
      ))}
    </section>
  );
}
