'use client';

import type { Plan, Wish } from '@/core/plan';
import { requireWritten, serviceNames, typedServices } from '@/core/model/policy';
import { useSession } from '../../session/context';
import { Field } from '../../parts/field';
import { endWord } from './words';

/** What a rule of the customer is about; no service is every service. */
export function WishServices({ plan, wish }: { plan: Plan; wish: Wish }) {
  const session = useSession();
  return (
    <Field
      label={`Services of ${endWord(wish.from)} to ${endWord(wish.to)}`}
      value={wish.services.length === 0 ? '' : serviceNames(plan, wish.services)}
      placeholder="everything"
      onCommit={(typed) => {
        requireWritten(typed, 'everything', 'services');
        session.perform({
          operation: 'setWishServices',
          input: { wish: wish.id, services: typedServices(plan, typed) },
        });
      }}
    />
  );
}
