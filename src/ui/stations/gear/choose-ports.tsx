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
  const [wrong, setWrong] = useState(false);
  const choose = (typed: string) => {
    setText(typed);
    const named = /^\s*(\S+)\s+(.+)$/.exec(typed);
    const byName = gear.find((item) => item.device.name.toLowerCase() === named?.[1]?.toLowerCase());
    // Numbers alone mean ports of the box that is chosen.
    const box = byName ?? gear.find((item) => item.device.id === device);
    const numbers = byName ? named![2]! : typed;
    const refuse = (why: string) => {
      setWrong(why !== '');
      setEcho(why);
      // What was chosen before is not what is typed now: a key would act on other ports.
      set({ ports: [], asking: null });
    };
    if (!box || (!byName && !/^[\s\d]/.test(typed)))
      return refuse(typed.trim() ? 'Write a box and its ports, like sw-a 1-4,9,12.' : '');
    const result = attempt(() => portsIn(numbers, box.ports));
    if ('refusal' in result) return refuse(result.refusal.message);
    setWrong(false);
    setEcho(describePorts(result.value, box.ports));
    set({ ports: result.value.map((port) => port.id), device: box.device.id, asking: null });
    onChosen?.(result.value);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') choose('');
    // The keys of the roles act on the ports from here on.
    if (event.key === 'Enter' && !wrong) event.currentTarget.blur();
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
        aria-invalid={wrong}
        aria-describedby="choose-ports-echo"
        onChange={(event) => choose(event.target.value)}
        onKeyDown={onKeyDown}
      />
      <span id="choose-ports-echo" role={wrong ? 'alert' : 'status'} className={wrong ? 'text-stop' : ''}>
        {echo}
      </span>
    </label>
  );
}
