'use client';

import { Differences } from '../parts/differences';
import { Dialog } from '../parts/dialog';
import { attempt } from '../session/attempt';
import { usePlan, useSession } from '../session/context';
import { useView } from '../session/view';

/** A bulk change, line by line, to be accepted or left. */
export function ReviewDialog() {
  const { review, set } = useView();
  const plan = usePlan();
  const session = useSession();
  const close = () => set({ review: null });
  if (!review) return null;
  const previewed = attempt(() => session.preview(review.call));
  const take = () => {
    session.perform(review.call, { reviewed: true, intent: review.intent });
    if (review.conflict) session.dismiss(review.conflict);
    close();
  };
  return (
    <Dialog title={review.title} open wide onClose={close}>
      {'refusal' in previewed ? (
        <p role="alert" className="border-l-4 border-stop px-3">
          {previewed.refusal.message}
        </p>
      ) : (
        <>
          <p className="pb-2 font-bold">{previewed.value.label}</p>
          <Differences plan={plan} change={previewed.value} />
          <div className="sticky bottom-0 flex gap-2 bg-paper pt-3">
            <button
              type="button"
              className="button button-primary"
              disabled={previewed.value.steps.length === 0}
              onClick={take}
            >
              {review.accept}
            </button>
            <button type="button" className="button" onClick={close}>
              Leave as it is
            </button>
          </div>
        </>
      )}
    </Dialog>
  );
}
