'use client';

import { useEffect, useRef } from 'react';
import Pad from 'signature_pad';

/** The box in which a signature is kept. */
const [WIDTH, HEIGHT] = [400, 150];

/** The strokes as path data; a dot is a line of no length. */
function pathOf(pad: Pad, scale: number): string {
  const at = ({ x, y }: { readonly x: number; readonly y: number }) =>
    `${Math.round(x * scale * 10) / 10} ${Math.round(y * scale * 10) / 10}`;
  return pad
    .toData()
    .filter(({ points }) => points.length > 0)
    .map(({ points }) => `M${at(points[0]!)}${points.map((point) => `L${at(point)}`).join('')}`)
    .join('');
}

/** A place to sign with a finger, a pen or the mouse. */
export function SignaturePad({ onDrawn }: { onDrawn: (path: string) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<Pad>(null);
  useEffect(() => {
    const element = canvas.current!;
    // As many pixels as it has on the page, so that a stroke is where the finger is.
    element.width = element.clientWidth;
    element.height = element.clientHeight;
    const made = new Pad(element, { penColor: getComputedStyle(element).color });
    const drawn = () => onDrawn(pathOf(made, WIDTH / element.clientWidth));
    made.addEventListener('endStroke', drawn);
    pad.current = made;
    return () => made.off();
  }, [onDrawn]);
  return (
    <div>
      Signature
      <canvas
        ref={canvas}
        role="img"
        aria-label="Draw the signature here"
        className="block w-full touch-none border-2 border-ink bg-sheet"
        style={{ aspectRatio: `${WIDTH} / ${HEIGHT}` }}
      />
      <button
        type="button"
        className="link"
        onClick={() => {
          pad.current?.clear();
          onDrawn('');
        }}
      >
        draw it again
      </button>
    </div>
  );
}
