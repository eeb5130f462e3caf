import type { AddressUse, Layout } from '@/core/model/segments';
import { countText } from '../../parts/count-text';

const parts: readonly (readonly [readonly AddressUse[], string])[] = [
  [['gateway', 'virtual'], 'gateway'],
  [['fixed'], 'fixed'],
  [['reserved'], 'reserved'],
  [['excluded'], 'excluded'],
  [['pool'], 'pool'],
  [['free'], 'free'],
];

/** The dimension line under a subnet: its parts and their sum, which is what the subnet fits. */
export function SubnetSum({ layout }: { layout: Layout }) {
  const terms = parts
    .map(([uses, word]) => [uses.reduce((sum, use) => sum + layout.counts[use], 0), word] as const)
    .filter(([count]) => count > 0);
  const total = terms.reduce((sum, [count]) => sum + count, 0);
  return (
    <div className="pb-2" data-testid="sum">
      <svg className="block h-[10px] w-full overflow-visible" aria-hidden="true">
        <line x1="0" x2="100%" y1="5" y2="5" stroke="var(--ink)" />
        <line x1="0.5" x2="0.5" y1="0" y2="10" stroke="var(--ink)" />
        <line x1="100%" x2="100%" y1="0" y2="10" stroke="var(--ink)" />
      </svg>
      <p className="mono text-center text-[14px]">
        {terms.map(([count, word]) => `${countText(count)} ${word}`).join(' + ')} = {countText(total)}
      </p>
    </div>
  );
}
