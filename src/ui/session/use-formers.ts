import { useEffect, useState } from 'react';
import { type Formers, formersOf } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { isTold } from './attempt';
import { type FormerPlans, formersIn } from './former-plans';

const NONE: Formers = new Map();

/** The plans that boxes were set up by; null while they are asked for, and why they cannot be had. */
export function useFormers(plans: FormerPlans, plan: Plan) {
  const needed = formersOf(plan).join(' ');
  const [known, setKnown] = useState<{
    readonly of: string;
    readonly formers: Formers;
    readonly problem: string;
  }>({
    of: '',
    formers: NONE,
    problem: '',
  });
  useEffect(() => {
    let wanted = true;
    plans.neededBy(plan).then(
      (texts) => wanted && setKnown({ of: needed, formers: formersIn(texts), problem: '' }),
      (error: Error) => {
        if (!isTold(error)) throw error;
        if (wanted) setKnown({ of: needed, formers: NONE, problem: error.message });
      },
    );
    return () => void (wanted = false);
    // What is needed says which plans; the rest of the plan has no part in it.
  }, [plans, needed]); // eslint-disable-line react-hooks/exhaustive-deps
  const { formers, problem } = known;
  return known.of === needed
    ? { formers: problem ? null : formers, problem }
    : { formers: null, problem: '' };
}
