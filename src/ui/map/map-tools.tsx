'use client';

import { useReactFlow } from '@xyflow/react';
import { Maximize, Minus, Plus } from 'lucide-react';
import { type FormEvent, type ReactNode, useId, useMemo, useState } from 'react';
import { siteOf } from '@/core/plan';
import { Problem } from '../parts/problem';
import { rowKey } from '@/core/model/map';
import type { Picture } from './picture';
import { saveFile } from '../parts/save-file';
import { pngOf, svgOf } from './picture-file';

/** No larger than is drawn, and on a phone not smaller than can be read. */
export const FIT = { maxZoom: 1.1, minZoom: 0.5, padding: 0.04 };

/** Find, zoom, arrange anew, take away. */
export function MapTools({
  picture,
  onShow,
  onArrange,
  children,
}: {
  picture: Picture;
  /** Brings a box into view; with a row that row is unfolded. */
  onShow: (box: string, row: string | null) => void;
  /** Null while nothing was moved by hand. */
  onArrange: (() => void) | null;
  /** What else stands in the line. */
  children?: ReactNode;
}) {
  const { plan, model } = picture;
  const { zoomIn, zoomOut, fitView } = useReactFlow();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const list = useId();
  const known = useMemo(() => placesByName(picture), [picture]);
  const find = (event: FormEvent) => {
    event.preventDefault();
    const name = text.trim().toLowerCase();
    if (!name) return;
    const found = known.get(name) ?? [...known].find(([other]) => other.includes(name))?.[1];
    setProblem(
      found ? '' : `Nothing on the map is called “${text.trim()}”; type a box or a device by its name.`,
    );
    if (found) onShow(found.box, found.row);
  };
  const file = siteOf(plan)
    .name.replace(/[^\p{L}\p{N}]+/gu, '-')
    .toLowerCase();
  return (
    <form className="flex flex-wrap items-center gap-2 pb-2" aria-label="Map" onSubmit={find}>
      <label className="flex items-center gap-2 text-[14px]">
        <span className="text-muted">find</span>
        <input
          className="field field-line mono w-[150px]"
          value={text}
          list={list}
          placeholder={model.boxes.at(-1)!.name}
          autoComplete="off"
          spellCheck={false}
          onChange={(event) => setText(event.target.value)}
        />
        <datalist id={list}>
          {model.boxes.map(({ id, name }) => (
            <option key={id} value={name} />
          ))}
        </datalist>
      </label>
      <Tool label="Zoom in" onClick={() => void zoomIn()}>
        <Plus size={16} aria-hidden="true" />
      </Tool>
      <Tool label="Zoom out" onClick={() => void zoomOut()}>
        <Minus size={16} aria-hidden="true" />
      </Tool>
      <Tool label="Fit all of it" onClick={() => void fitView(FIT)}>
        <Maximize size={16} aria-hidden="true" />
      </Tool>
      {children}
      <span className="flex-1" />
      {onArrange && (
        <button type="button" className="link" onClick={onArrange}>
          arrange anew
        </button>
      )}
      <button
        type="button"
        className="link"
        onClick={() => saveFile(new Blob([svgOf(picture)], { type: 'image/svg+xml' }), `${file}-map.svg`)}
      >
        SVG
      </button>
      <button
        type="button"
        className="link"
        onClick={() => void pngOf(picture).then((blob) => saveFile(blob, `${file}-map.png`))}
      >
        PNG
      </button>
      <Problem text={problem} className="w-full text-[14px]" />
    </form>
  );
}

function Tool({ label, onClick, children }: { label: string; onClick: () => void; children: ReactNode }) {
  return (
    <button type="button" className="button px-2" aria-label={label} title={label} onClick={onClick}>
      {children}
    </button>
  );
}

/** Boxes and end devices by name in small letters: where on the map each is. */
function placesByName({ model }: Picture) {
  const known = new Map<string, { readonly box: string; readonly row: string | null }>();
  for (const { id, name } of model.boxes) known.set(name.toLowerCase(), { box: id, row: null });
  for (const { id, ends } of model.boxes)
    for (const { segment, devices } of ends)
      for (const { name } of devices)
        if (!known.has(name.toLowerCase()))
          known.set(name.toLowerCase(), { box: id, row: rowKey(id, segment) });
  return known;
}
