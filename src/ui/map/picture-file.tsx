import { flushSync } from 'react-dom';
import { createRoot } from 'react-dom/client';
import { extentOf, placesOf } from '@/core/model/map';
import { BoxArt, CableArt, PlaceArt } from './art';
import type { Picture } from './picture';

/** The whole map as drawn on the page, whatever part of it is in view. */
function Whole({ picture }: { picture: Picture }) {
  const { plan, model, arrangement, unfolded, look } = picture;
  const { x, y, width, height } = extentOf(model, arrangement);
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`${x} ${y} ${width} ${height}`}
      width={width}
      height={height}
      fontFamily="var(--font-sans)"
    >
      <rect x={x} y={y} width={width} height={height} fill="var(--paper)" />
      {[...placesOf(model, arrangement)].map(([place, frame]) => (
        <g key={place} transform={`translate(${frame.x} ${frame.y})`}>
          <PlaceArt name={place} frame={frame} />
        </g>
      ))}
      {model.cables.map((cable) => (
        <CableArt key={cable.id} cable={cable} points={arrangement.cables.get(cable.id)!} look={look} />
      ))}
      {model.boxes.map((box) => {
        const placed = arrangement.boxes.get(box.id)!;
        return (
          <g key={box.id} transform={`translate(${placed.x} ${placed.y})`}>
            <BoxArt plan={plan} box={box} placed={placed} unfolded={unfolded} look={look} chosen={false} />
          </g>
        );
      })}
    </svg>
  );
}

/** As a file of its own: other programs know no tokens of this page, so colours and fonts are written out. */
export function svgOf(picture: Picture): string {
  const place = document.createElement('div');
  const root = createRoot(place);
  flushSync(() => root.render(<Whole picture={picture} />));
  const tokens = getComputedStyle(document.documentElement);
  const text = new XMLSerializer()
    .serializeToString(place.firstElementChild!)
    .replace(/var\((--[\w-]+)\)/g, (_all, name: string) =>
      tokens.getPropertyValue(name).trim().replaceAll('"', "'"),
    );
  root.unmount();
  return text;
}

/** A canvas larger than this is refused by browsers, in pixels of one side. */
const LARGEST = 8000;

/** The same in pixels, twice as fine where that is not too large. */
export async function pngOf(picture: Picture): Promise<Blob> {
  const { width, height } = extentOf(picture.model, picture.arrangement);
  const scale = Math.min(2, LARGEST / Math.max(width, height));
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(picture))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(width * scale);
  canvas.height = Math.ceil(height * scale);
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture came of it'))), 'image/png'),
  );
}
