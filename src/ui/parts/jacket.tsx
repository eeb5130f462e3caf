import type { Vlan } from '@/core/plan';
import { textOn } from '@/core/model/segments';

/** A segment everywhere: a cable jacket in its colour with a printed ring, VLAN id and code. */
export function Jacket({
  vlan,
  wide = true,
}: {
  vlan: Pick<Vlan, 'vid' | 'code' | 'colour'>;
  wide?: boolean;
}) {
  return (
    <span
      className="own-colours mono inline-flex items-center justify-center border-y border-ink/40 text-[13px] font-bold whitespace-nowrap"
      style={{
        background: vlan.colour,
        color: textOn(vlan.colour),
        minWidth: wide ? 76 : undefined,
        padding: '0 8px 0 14px',
        lineHeight: '19px',
        boxShadow: `inset 3px 0 0 ${vlan.colour}, inset 5px 0 0 ${textOn(vlan.colour)}, inset 7px 0 0 ${vlan.colour}, inset 9px 0 0 ${textOn(vlan.colour)}`,
      }}
    >
      {vlan.vid} {vlan.code}
    </span>
  );
}
