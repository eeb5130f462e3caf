'use client';

import { useState } from 'react';
import { type Band, type Plan, bands } from '@/core/plan';
import { accessPoints, spotOf } from '@/core/model/wireless';
import { Choice } from '../../parts/choice';
import { OneOf } from '../../parts/one-of';
import { Places, Walls } from './floor-lists';
import { FloorPicture } from './floor-picture';

/** The levels whose circles can be drawn: what they are good for. */
const levels = [
  { value: '-55', label: '−55 dBm, everything' },
  { value: '-65', label: '−65 dBm, voice' },
  { value: '-75', label: '−75 dBm, slow' },
  { value: '-82', label: '−82 dBm, kept silent by it' },
];

/** Where the access points of a floor hang, in metres, with a circle for how far each is heard. */
export function FloorPanel({ plan }: { plan: Plan }) {
  const all = accessPoints(plan);
  const floors = [
    ...new Set([0, ...[...plan.spot.values(), ...plan.wall.values()].map(({ floor }) => floor)]),
  ];
  floors.sort((a, b) => a - b);
  const [chosen, setFloor] = useState(0);
  const floor = floors.includes(chosen) ? chosen : floors[0]!;
  const [band, setBand] = useState<Band>('5');
  const [level, setLevel] = useState('-65');
  const hung = all.flatMap((device) => {
    const spot = spotOf(plan, device.id);
    return spot?.floor === floor ? [{ device, spot }] : [];
  });
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 pb-2">
        {floors.length > 1 && (
          <OneOf
            label="Floor"
            look="bar"
            value={String(floor)}
            of={floors.map((value) => ({ value: String(value), shown: `floor ${value}` }))}
            onChoose={(value) => setFloor(Number(value))}
          />
        )}
        <OneOf
          label="Band"
          look="bar"
          value={band}
          of={bands.map((value) => ({ value, shown: `${value} GHz` }))}
          onChoose={setBand}
        />
        <span className="text-[14px]">circles at</span>
        <div className="w-[210px] border-b border-rule">
          <Choice label="Circles at" value={level} options={levels} onChoose={setLevel} />
        </div>
        <span className="text-[13px] text-muted">
          an estimate, as if no wall stood there; drag, or move what has the focus by the arrow keys
        </span>
      </div>
      <FloorPicture plan={plan} floor={floor} hung={hung} band={band} dbm={Number(level)} />
      <Places plan={plan} all={all} />
      <Walls plan={plan} floor={floor} />
    </>
  );
}
