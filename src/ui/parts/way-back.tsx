import type { SheetStep } from '@/core/commission';

/** How a step is taken back; `alone` where no other is in view, and all of it has to be said. */
export function WayBack({ step: { back, restarts }, alone = false }: { step: SheetStep; alone?: boolean }) {
  return (
    <span className="block border-l-4 border-rule pl-2 text-[13px]">
      Back: {back}
      {alone && restarts && ' Until it is saved, a restart brings back what was before.'}
    </span>
  );
}
