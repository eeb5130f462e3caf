const channel = (value: number) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4);

/** Relative luminance of #rrggbb (WCAG 2.2). */
export function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => channel(parseInt(colour.slice(at, at + 2), 16) / 255)) as [
    number,
    number,
    number,
  ];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

export const INK = '#12201a';
export const WHITE = '#ffffff';

/** Contrast ratio of two colours (WCAG 2.2). */
export function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

/** Ink or white, whichever reads better on a jacket of this colour. */
export const textOn = (colour: string): string =>
  contrast(colour, INK) >= contrast(colour, WHITE) ? INK : WHITE;
