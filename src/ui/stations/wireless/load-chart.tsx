'use client';

import type { ChannelLoad } from '@/core/model/wireless';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

/** What lies on a channel before and after; null where nothing does. */
export interface LoadRow {
  readonly channel: number;
  readonly was: ChannelLoad | null;
  readonly will: ChannelLoad | null;
}

const ticks = { fill: 'var(--ink)', fontSize: 13 };

/** How many pairs hear each other on each channel, before and after; the same numbers stand beside it in a table. */
export function LoadChart({ rows, label }: { rows: readonly LoadRow[]; label: string }) {
  const data = rows.map(({ channel, was, will }) => ({
    channel,
    before: was?.clashes ?? 0,
    after: will?.clashes ?? 0,
    radios: will?.radios ?? 0,
  }));
  return (
    <figure aria-label={label} className="h-[200px]">
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={data} margin={{ top: 4, right: 8, bottom: 0, left: -24 }} barGap={1}>
          <CartesianGrid stroke="var(--rule)" vertical={false} />
          <XAxis dataKey="channel" tick={ticks} stroke="var(--ink)" />
          <YAxis allowDecimals={false} tick={ticks} stroke="var(--ink)" />
          <Tooltip
            cursor={{ fill: 'var(--chosen)' }}
            contentStyle={{ background: 'var(--sheet)', border: '2px solid var(--ink)', borderRadius: 0 }}
            labelFormatter={(channel) => `channel ${channel}`}
          />
          <Legend formatter={(text: string) => <span className="text-[13px] text-ink">{text}</span>} />
          <Bar dataKey="before" name="pairs before" fill="var(--muted)" isAnimationActive={false} />
          <Bar
            dataKey="after"
            name="pairs after"
            fill="var(--hivis)"
            stroke="var(--ink)"
            strokeWidth={1.5}
            isAnimationActive={false}
          />
          <Bar
            dataKey="radios"
            name="radios after"
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeDasharray="3 2"
            isAnimationActive={false}
          />
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}
