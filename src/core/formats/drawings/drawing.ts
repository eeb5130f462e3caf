/** A drawing as plain shapes, in points, and as a file of its own (SVG 1.1, W3C Recommendation of 2011). */

interface Point {
  readonly x: number;
  readonly y: number;
}

export type Shape =
  | (Point & {
      readonly kind: 'box';
      readonly width: number;
      readonly height: number;
      readonly fill: string | null;
      readonly line?: string;
      readonly dashed?: boolean;
    })
  | { readonly kind: 'line'; readonly from: Point; readonly to: Point; readonly line: string }
  | (Point & {
      readonly kind: 'text';
      readonly text: string;
      readonly size: number;
      readonly fill: string;
      readonly bold?: boolean;
      /** The point is the middle of the line, not its beginning. */
      readonly middle?: boolean;
    });

export interface Drawing {
  readonly title: string;
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly Shape[];
}

/** Text as XML takes it (XML 1.0, 2.2 and 2.4): what no document may hold is left out. */
const escaped = (text: string): string =>
  text
    .replace(/[^\t\n\r\u{20}-\u{d7ff}\u{e000}-\u{fffd}\u{10000}-\u{10ffff}]/gu, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

const number = (value: number): string => String(Math.round(value * 100) / 100);

function element(shape: Shape): string {
  if (shape.kind === 'line') {
    const { from, to, line } = shape;
    return `<path d="M${number(from.x)} ${number(from.y)}L${number(to.x)} ${number(to.y)}" stroke="${line}"/>`;
  }
  const at = `x="${number(shape.x)}" y="${number(shape.y)}"`;
  if (shape.kind === 'text') {
    const { text, size, fill, bold, middle } = shape;
    return `<text ${at} font-size="${number(size)}" fill="${fill}"${bold ? ' font-weight="700"' : ''}${middle ? ' text-anchor="middle"' : ''}>${escaped(text)}</text>`;
  }
  const { width, height, fill, line, dashed } = shape;
  const stroke = line === undefined ? '' : ` stroke="${line}"${dashed ? ' stroke-dasharray="3 2"' : ''}`;
  return `<rect ${at} width="${number(width)}" height="${number(height)}" fill="${fill ?? 'none'}"${stroke}/>`;
}

/** A drawing as an SVG file. */
export const svgOf = ({ title, width, height, shapes }: Drawing): string =>
  [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(width)}" height="${number(height)}" viewBox="0 0 ${number(width)} ${number(height)}" font-family="sans-serif" role="img">`,
    `<title>${escaped(title)}</title>`,
    ...shapes.map(element),
    '</svg>',
    '',
  ].join('\n');
