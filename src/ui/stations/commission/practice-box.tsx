import type { BenchBox, WireBenchAction } from '@/core/commission';
import type { Plan } from '@/core/plan';

/** The page of a pretend box: what is still to be set, and its plug and pin, which always work. */
export function PracticeBox({
  plan,
  box,
  busy,
  onDo,
}: {
  plan: Plan;
  box: BenchBox;
  busy: boolean;
  onDo: (actions: readonly WireBenchAction[]) => void;
}) {
  const { device, shut, left, unsaved } = box;
  const { name } = plan.device.get(device)!;
  const hand = (label: string, action: WireBenchAction) => (
    <button
      type="button"
      className="button max-[699px]:min-h-touch"
      disabled={busy}
      aria-label={`${label}: ${name}`}
      onClick={() => onDo([action])}
    >
      {label}
    </button>
  );
  return (
    <section aria-label={name} className="min-w-0 flex-1 max-[899px]:pt-4">
      <h3 className="flex flex-wrap items-center gap-2 border-b-2 border-ink pb-1 font-bold">
        <span className="mono flex-1">{name}</span>
        {hand('Pull its plug', { kind: 'restart', device })}
        {hand('Press the pin', { kind: 'reset', device })}
      </h3>
      {shut !== '' && <p className="border-l-4 border-stop my-1 pl-2">{shut}</p>}
      <ul aria-label={`Settings of ${name}`}>
        {left.map(({ step, does }) => {
          const byHand = step.setting.kind === 'plug';
          return (
            <li
              key={JSON.stringify(step)}
              className="flex items-center gap-2 border-b border-rule py-1 text-[14px]"
            >
              <span className="min-w-0 flex-1">{does}</span>
              <button
                type="button"
                className="button max-[699px]:min-h-touch"
                disabled={busy || (!byHand && shut !== '')}
                aria-label={`Set: ${does}`}
                onClick={() => onDo([{ kind: 'set', step }])}
              >
                {byHand ? 'Plug in' : 'Set'}
              </button>
              {shut !== '' && !byHand && (
                <button
                  type="button"
                  className="button max-[699px]:min-h-touch"
                  disabled={busy}
                  aria-label={`By console: ${does}`}
                  onClick={() => onDo([{ kind: 'console', step }])}
                >
                  By console
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {unsaved && (
        <p className="flex items-center gap-2 py-2">
          <span className="flex-1">What was set is lost with a restart.</span>
          <button
            type="button"
            className="button max-[699px]:min-h-touch"
            disabled={busy || shut !== ''}
            aria-label={`Save: ${name}`}
            onClick={() => onDo([{ kind: 'set', step: { device, setting: { kind: 'save' } } }])}
          >
            Save
          </button>
        </p>
      )}
    </section>
  );
}
