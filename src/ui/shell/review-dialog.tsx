'use client';

import { Refusal } from '@/core/plan/refusal';
import { Differences } from '../parts/differences';
import { Dialog } from '../parts/dialog';
import { usePlan, useSession } from '../session/context';
import { useView } from '../session/view';

/** A bulk change, line by line, to be accepted or left. */
export function ReviewDialog() {
  const { review, set } = useView();
  const plan = usePlan();
  const session = useSession();
  const close = () => set({ review: null });
  if (!review) return null;
  let content;
  try {
    const change = session.preview(review.call);
    content = (
      <>
        <p className="pb-2 font-bold">{change.label}</p>
        <Differences plan={plan} change={change} />
        <div className="sticky bottom-0 flex gap-2 bg-paper pt-3">
          <button
            type="button"
            className="button button-primary"
            disabled={change.steps.length === 0}
            onClick={() => {
              session.perform(review.call, { reviewed: true });
              close();
            }}
          >
            {review.accept}
          </button>
          <button type="button" className="button" onClick={close}>
            Leave as it is
          </button>
        </div>
      </>
    );
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    content = (
      <p role="alert" className="border-l-4 border-stop px-3">
        {error.message}
      </p>
    );
  }
  return (
    <Dialog title={review.title} open wide onClose={close}>
      {content}
    </Dialog>
  );
}
