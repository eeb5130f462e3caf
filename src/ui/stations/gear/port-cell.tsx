'use client';

import { memo } from 'react';
import type { Plan, Port, Vlan } from '@/core/plan';
import { textOn } from '@/core/model/segments';

const SHOWN = 4;

export interface PortLook {
  /** Jackets from left to right; one for an access port. */
  readonly stripes: readonly Vlan[];
  /** How many VLANs a trunk carries when they are too many for stripes. */
  readonly count: string | null;
  readonly text: string;
  readonly notch: string | null;
  readonly inlay: string | null;
  readonly state: 'plain' | 'parked' | 'undecided' | 'net' | 'defective' | 'passive';
}

/** How a port is drawn: computed from what it carries. */
export function lookOf(plan: Plan, port: Port, passive: boolean): PortLook {
  const plain: PortLook = { stripes: [], count: null, text: '', notch: null, inlay: null, state: 'plain' };
  if (port.defective) return { ...plain, state: 'defective' };
  if (passive) return { ...plain, state: 'passive' };
  if (port.role === 'parked' || !port.enabled) return { ...plain, state: 'parked' };
  if (port.role === 'undecided') return { ...plain, state: 'undecided' };
  if (port.role === 'uplink') return { ...plain, state: 'net', text: 'NET' };
  const untagged = port.untagged === null ? null : plan.vlan.get(port.untagged)!;
  if (port.role === 'trunk') {
    const tagged = port.tagged.map((id) => plan.vlan.get(id)!).sort((a, b) => a.vid - b.vid);
    const list = port.taggedMode === 'list';
    const count = list
      ? tagged.length > SHOWN
        ? `×${tagged.length}`
        : null
      : port.taggedMode === 'all'
        ? 'all'
        : `−${tagged.length}`;
    const stripes = count === null ? tagged : [];
    return { ...plain, stripes, count, text: count ?? '', notch: untagged?.colour ?? null };
  }
  const voice = port.voice === null ? null : plan.vlan.get(port.voice)!;
  return {
    ...plain,
    stripes: untagged ? [untagged] : [],
    text: untagged?.code ?? '',
    inlay: voice?.colour ?? null,
  };
}

interface Props {
  readonly port: Port;
  /** In the grid of its fold, from 1. */
  readonly column: number;
  readonly look: PortLook;
  readonly label: string;
  readonly size: number;
  readonly chosen: boolean;
  readonly faded: boolean;
  readonly wrong: boolean;
  /** Is there a cable in it? */
  readonly cabled: boolean;
  /** Is it pointed at, or at the other end of what is? */
  readonly pointed: boolean;
  readonly focusable: boolean;
}

/** A port as on the case: the printed number above, what it carries below. */
export const PortCell = memo(function PortCell({
  port,
  column,
  look,
  label,
  size,
  chosen,
  faded,
  wrong,
  cabled,
  pointed,
  focusable,
}: Props) {
  const single = look.stripes.length === 1 ? look.stripes[0]! : null;
  const background =
    look.stripes.length > 1
      ? `linear-gradient(90deg, ${look.stripes
          .map(
            (vlan, i) =>
              `${vlan.colour} ${(i / look.stripes.length) * 100}% ${((i + 1) / look.stripes.length) * 100}%`,
          )
          .join(', ')})`
      : single
        ? single.colour
        : look.count !== null
          ? '#f4f6f4'
          : look.state === 'parked'
            ? 'repeating-linear-gradient(135deg, #3d4a43 0 4px, #27332d 4px 8px)'
            : 'transparent';
  const small = size < 30;
  return (
    <button
      type="button"
      role="option"
      aria-selected={chosen}
      title={label}
      data-port={port.id}
      data-record={port.id}
      tabIndex={focusable ? 0 : -1}
      className={`relative flex touch-none flex-col overflow-hidden p-0 text-left outline-offset-1 select-none ${chosen ? 'z-10 outline-[3px]! outline-[#d4f03c]! outline-solid!' : pointed ? 'z-10 outline-2! outline-white! outline-dashed!' : ''} ${look.state === 'undecided' ? 'border-2 border-dashed border-[#ff8272]' : 'border border-[#5a6961]'}`}
      style={{
        width: size,
        height: Math.max(36, size),
        gridRow: port.row + 1,
        gridColumn: column,
        background: '#1d2823',
        // Still to be read: white at half strength keeps 4.9:1 on the case.
        ...(faded ? { opacity: 0.5, filter: 'grayscale(1)' } : {}),
      }}
    >
      {/* The name for a reader is the whole sentence; number and code are for the eye. */}
      <span className="sr-only">{label}</span>
      {/* A plug in the socket. */}
      {cabled && <span aria-hidden="true" className="absolute inset-x-[28%] top-0 h-[3px] bg-white" />}
      <span
        aria-hidden="true"
        className={`mono flex w-full items-center justify-between leading-none font-bold text-white ${small ? 'px-px pt-[2px] text-[11px]' : 'px-1 pt-[3px] text-[11px]'}`}
      >
        {port.number}
        {port.poeClass !== null && !small && !wrong && (
          <svg width="7" height="10" viewBox="0 0 7 10" aria-hidden="true">
            <path d="M4 0 0 6h3L2 10l5-6H4z" fill="#d4f03c" />
          </svg>
        )}
        {wrong && !small && (
          <span className="absolute top-0 right-0 size-[7px] bg-[#ff8272]" aria-hidden="true" />
        )}
      </span>
      <span
        aria-hidden="true"
        className={`mono relative mt-auto flex w-full items-center justify-center font-bold ${small ? 'h-[19px] text-[10px]' : 'h-[22px] text-[12px]'}`}
        style={{
          background,
          color: single ? textOn(single.colour) : look.state === 'net' ? '#d4f03c' : '#12201a',
        }}
      >
        {look.state === 'defective' ? (
          <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
            <path d="M2 2l10 10M12 2 2 12" stroke="#ff8272" strokeWidth="2.4" />
          </svg>
        ) : (
          look.text
        )}
        {/* Where the number fills the width, the mark goes below it. */}
        {wrong && small && <span className="absolute inset-x-0 bottom-0 h-[4px] bg-[#ff8272]" />}
        {look.notch !== null && (
          <svg
            className="absolute bottom-0 left-0"
            width="12"
            height="12"
            viewBox="0 0 12 12"
            aria-hidden="true"
          >
            <path d="M0 0v12h12z" fill={look.notch} stroke="#1d2823" />
          </svg>
        )}
        {look.inlay !== null && (
          <span
            className={`absolute rounded-full border-white ${small ? 'right-0 bottom-0 size-[8px] border' : 'right-[2px] bottom-[5px] size-[11px] border-2'}`}
            style={{ background: look.inlay }}
            aria-hidden="true"
          />
        )}
      </span>
    </button>
  );
});
