'use client';

import { useId, useMemo } from 'react';
import type { Band, Plan, Radio } from '@/core/plan';
import {
  beaconsAt,
  channelsOf,
  clashesOf,
  namesOn,
  onChannels,
  plannedOf,
  radiosIn,
  spanOf,
  spanOfForeign,
} from '@/core/model/wireless';
import { useView } from '../../session/view';
import { textOn } from '@/core/model/segments';
import { percent } from './words';

const WIDTH = 760;
const STRIP = 30;
const FOREIGN_MOST = 12;

interface Bar {
  readonly key: string;
  readonly from: number;
  readonly to: number;
  readonly text: string;
  readonly radio: Radio | null;
}

/** Bars laid in rows so that none covers another, the first rows nearest to the strip. */
function rowsOf(bars: readonly Bar[]): Bar[][] {
  const rows: Bar[][] = [];
  for (const bar of [...bars].sort((a, b) => b.to - b.from - (a.to - a.from) || a.from - b.from)) {
    const row = rows.find((each) => each.every(({ from, to }) => bar.to <= from || bar.from >= to));
    if (row) row.push(bar);
    else rows.push([bar]);
  }
  return rows;
}

/** The frequencies of a band as a strip, with every radio lying on it as wide as its channel, and those of others dashed. */
export function AirStrip({ plan, band }: { plan: Plan; band: Band }) {
  const { accessPoint, set } = useView();
  const hatch = useId();
  const shown = useMemo(() => barsOf(plan, band), [plan, band]);
  const clashing = useMemo(
    () =>
      new Set(radiosIn(plan, band).flatMap((radio) => (clashesOf(plan, radio).length > 0 ? [radio.id] : []))),
    [plan, band],
  );
  const channels = channelsOf[band].map((channel) => ({ channel, span: spanOf(band, channel, '20')! }));
  const from = channels[0]!.span.from;
  const to = channels.at(-1)!.span.to;
  const x = (megahertz: number) => ((megahertz - from) / (to - from)) * WIDTH;
  const rows = rowsOf(shown);
  // Many rows are thin: then only the table has the names.
  const height = rows.length > 14 ? 7 : 26;
  const top = rows.length * (height + 3) + 4;
  const labelled = plannedOf[band].filter(
    (_, i, all) => all.length <= 15 || i % Math.ceil(all.length / 15) === 0,
  );
  const busiest = useMemo(() => busiestOf(plan, band), [plan, band]);
  return (
    <figure className="max-w-[1240px] overflow-x-auto" aria-label={`The air at ${band} GHz`}>
      <svg
        viewBox={`0 0 ${WIDTH} ${top + STRIP + 52}`}
        className="min-w-[640px]"
        role="group"
        aria-label={`${shown.length} channels in use at ${band} GHz`}
      >
        <defs>
          <pattern
            id={hatch}
            width="7"
            height="7"
            patternTransform="rotate(45)"
            patternUnits="userSpaceOnUse"
          >
            <rect width="7" height="7" fill="var(--sheet)" />
            <path d="M0 0v7" stroke="var(--stop)" strokeWidth="4" />
          </pattern>
        </defs>
        {rows.map((row, i) =>
          row.map((bar) => (
            <BarShape
              key={bar.key}
              plan={plan}
              bar={bar}
              x={x(bar.from)}
              width={x(bar.to) - x(bar.from)}
              y={top - (i + 1) * (height + 3)}
              height={height}
              hatched={bar.radio !== null && clashing.has(bar.radio.id) ? `url(#${hatch})` : null}
              chosen={bar.radio !== null && bar.radio.device === accessPoint}
              onChoose={() => bar.radio && set({ accessPoint: bar.radio.device, ssid: null, finding: null })}
            />
          )),
        )}
        {channels.map(({ channel, span }) =>
          plannedOf[band].includes(channel) && band !== '2.4' ? (
            <rect
              key={channel}
              x={x(span.from)}
              y={top}
              width={x(span.to) - x(span.from)}
              height={STRIP}
              fill="var(--sheet)"
              stroke="var(--rule)"
            />
          ) : null,
        )}
        {band === '2.4' && (
          <rect
            x="0"
            y={top}
            width={WIDTH}
            height={STRIP}
            fill="var(--sheet)"
            stroke="var(--ink)"
            strokeWidth="2"
          />
        )}
        {channels.map(({ channel, span }) => {
          const middle = x((span.from + span.to) / 2);
          const planned = labelled.includes(channel);
          if (band !== '2.4' && !planned) return null;
          return (
            <g key={channel}>
              {band === '2.4' && (
                <path d={`M${middle} ${top}v${STRIP}`} stroke="var(--rule)" strokeWidth={planned ? 2 : 1} />
              )}
              <text
                x={middle}
                y={top + STRIP + 17}
                textAnchor="middle"
                className="mono"
                fontSize="15"
                fontWeight={planned && band === '2.4' ? 700 : 400}
                fill="var(--ink)"
              >
                {channel}
              </text>
            </g>
          );
        })}
        {busiest && (
          <g stroke="var(--ink)" fill="none">
            <path
              d={`M${x(busiest.from)} ${top + STRIP + 32}v10M${x(busiest.from)} ${top + STRIP + 37}H${x(busiest.to)}M${x(busiest.to)} ${top + STRIP + 32}v10`}
            />
            <text
              x={x(busiest.to) > WIDTH * 0.6 ? x(busiest.from) - 8 : x(busiest.to) + 8}
              y={top + STRIP + 42}
              textAnchor={x(busiest.to) > WIDTH * 0.6 ? 'end' : 'start'}
              className="mono"
              fontSize="15"
              fill="var(--ink)"
              stroke="none"
            >
              {busiest.text}
            </text>
          </g>
        )}
      </svg>
    </figure>
  );
}

function barsOf(plan: Plan, band: Band): readonly Bar[] {
  const own = onChannels(plan, band).map(({ radio, span }): Bar => {
    const power = radio.power === null ? '' : ` ${radio.power} dBm`;
    return { key: radio.id, ...span, text: `${plan.device.get(radio.device)!.name}${power}`, radio };
  });
  const foreign = [...plan.foreignSsid.values()]
    .filter((one) => one.band === band)
    .sort((a, b) => b.dbm - a.dbm)
    .slice(0, FOREIGN_MOST)
    .flatMap((one): Bar[] => {
      const span = spanOfForeign(one);
      return span ? [{ key: one.id, ...span, text: `${one.name || 'no name'} ${one.dbm}`, radio: null }] : [];
    });
  return [...own, ...foreign];
}

/** Where most radios share the air, with the sum. */
function busiestOf(plan: Plan, band: Band) {
  const radios = onChannels(plan, band);
  let best: { readonly from: number; readonly to: number; readonly radios: readonly Radio[] } | null = null;
  for (const { span } of radios) {
    const same = radios.filter((other) => other.span.from < span.to && other.span.to > span.from);
    if (!best || same.length > best.radios.length) best = { ...span, radios: same.map(({ radio }) => radio) };
  }
  if (!best) return null;
  const share = Math.max(...best.radios.map((radio) => beaconsAt(plan, radio)));
  const count = best.radios.length;
  return {
    ...best,
    text: `${count} ${count === 1 ? 'radio' : 'radios'} here, up to ${percent(share)} of the air taken by beacons`,
  };
}

function BarShape({
  plan,
  bar,
  x,
  y,
  width,
  height,
  hatched,
  chosen,
  onChoose,
}: {
  plan: Plan;
  bar: Bar;
  x: number;
  y: number;
  width: number;
  height: number;
  hatched: string | null;
  chosen: boolean;
  onChoose: () => void;
}) {
  const { radio, text } = bar;
  const first = radio ? namesOn(plan, radio).find(({ vlan }) => vlan !== null) : undefined;
  const colour = (first?.vlan && plan.vlan.get(first.vlan)?.colour) || '#5b6b62';
  const room = Math.floor((width - 8) / 8.2);
  const fits = room >= 3 && height > 12;
  const short = text.length > room ? `${text.slice(0, Math.max(1, room - 1))}…` : text;
  return (
    <g
      role={radio ? 'button' : 'img'}
      tabIndex={radio ? 0 : undefined}
      aria-label={`${text}${hatched ? ', shares its channel with one it hears' : ''}${radio ? '' : ', foreign'}`}
      className={radio ? 'own-colours cursor-pointer' : ''}
      onClick={onChoose}
      onKeyDown={(event) => {
        if (event.key === 'Enter' || event.key === ' ') {
          event.preventDefault();
          onChoose();
        }
      }}
    >
      <title>{text}</title>
      <rect
        x={x + 1}
        y={y}
        width={Math.max(2, width - 2)}
        height={height}
        fill={radio ? (hatched ?? colour) : 'none'}
        stroke={chosen ? 'var(--ink)' : radio ? (hatched ? 'var(--stop)' : 'var(--ink)') : 'var(--muted)'}
        strokeWidth={chosen ? 4 : 1.5}
        strokeDasharray={radio ? undefined : '5 4'}
      />
      {fits && (
        <>
          {hatched && (
            <rect
              x={x + 5}
              y={y + 4}
              width={short.length * 8.2 + 4}
              height={height - 8}
              fill="var(--sheet)"
            />
          )}
          <text
            x={x + 7}
            y={y + height / 2 + 5}
            className="mono"
            fontSize="14"
            fontWeight="600"
            fill={radio ? (hatched ? 'var(--ink)' : textOn(colour)) : 'var(--muted)'}
          >
            {short}
          </text>
        </>
      )}
    </g>
  );
}
