'use client';

import { type KeyboardEvent, useState } from 'react';
import { describePorts, portsIn } from '@/core/model/wiring';
import type { Port } from '@/core/plan';
import { attempt } from '../../session/attempt';
import { useView } from '../../session/view';
import type { Gear } from './gear-list';

/** Chooses ports by typing a box and its numbers, and says what was understood: "6 ports, none of the fibre ones". */
export function ChoosePorts({
  gear,
  onChosen,
}: {
  gear: readonly Gear[];
  onChosen?: (ports: readonly Port[]) => void;
}) {
  const { device, set } = useView();
  const [text, setText] = useState('');
  const [echo, setEcho] = useState('');
  const choose = (typed: string) => {
    setText(typed);
    const named = /^\s*(\S+)\s+(.+)$/.exec(typed);
    const byName = gear.find((item) => item.device.name.toLowerCase() === named?.[1]?.toLowerCase());
    // Numbers alone mean ports of the box that is chosen.
    const box = byName ?? gear.find((item) => item.device.id === device);
    const numbers = byName ? named![2]! : typed;
    if (!box || (!byName && !/^[\s\d]/.test(typed)))
      return setEcho(typed.trim() ? 'Write a box and its ports, like sw-a 1-4,9,12.' : '');
    const result = attempt(() => portsIn(numbers, box.ports));
    if ('refusal' in result) return setEcho(result.refusal.message);
    setEcho(describePorts(result.value, box.ports));
    set({ ports: result.value.map((port) => port.id), device: box.device.id, asking: null });
    onChosen?.(result.value);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') choose('');
    // The keys of the roles act on the ports from here on.
    if (event.key === 'Enter') event.currentTarget.blur();
  };
  return (
    <label className="flex min-w-0 flex-wrap items-center gap-x-2 text-[14px]">
      <span className="text-muted">choose by number</span>
      <input
        id="choose-ports"
        className="field field-line mono w-[15ch]!"
        placeholder="sw-a 1-4,9,12"
        value={text}
        autoComplete="off"
        onChange={(event) => choose(event.target.value)}
        onKeyDown={onKeyDown}
      />
      <span role="status">{echo}</span>
    </label>
  );
}
