'use client';

import { type FormEvent, useState } from 'react';
import type { Device } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Problem } from '../../parts/problem';

/** Names in the configuration and indexes inside, filled by pattern for all ports of the box. */
export function PortPatterns({ device }: { device: Device }) {
  const session = useSession();
  const [name, setName] = useState('');
  const [index, setIndex] = useState('');
  const [problem, setProblem] = useState('');
  const fill = (event: FormEvent) => {
    event.preventDefault();
    const input = {
      device: device.id,
      ...(name.trim() ? { name } : {}),
      ...(index.trim() ? { index } : {}),
    };
    setProblem(problemOf(() => session.perform({ operation: 'mapPorts', input })));
  };
  return (
    <form onSubmit={fill} className="pt-3 text-[14px]">
      <p className="font-bold">Port names by pattern</p>
      <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
        <label>
          in the configuration
          <input
            className="field field-line mono"
            placeholder="ge{n}"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label>
          index inside
          <input
            className="field field-line mono"
            placeholder="{24-n}"
            value={index}
            onChange={(event) => setIndex(event.target.value)}
          />
        </label>
        <button type="submit" className="button" disabled={!name.trim() && !index.trim()}>
          Fill
        </button>
      </div>
      <Problem text={problem} />
    </form>
  );
}
