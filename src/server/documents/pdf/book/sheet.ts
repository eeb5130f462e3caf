import { type Style, LEADING, MM, Typesetter } from '../typesetter';

/** The sheets a book is written on: where the next line goes, and when a new sheet begins. */

export const papers = { a4: [210, 297], letter: [215.9, 279.4] } as const;
export type Paper = keyof typeof papers;

const MARGIN = { side: 17 * MM, top: 20 * MM, bottom: 18 * MM } as const;

export class Sheet {
  /** Where the next line goes. */
  y = MARGIN.top;
  readonly set: Typesetter;

  constructor(
    readonly doc: PDFKit.PDFDocument,
    private readonly paper: Paper,
  ) {
    this.set = new Typesetter(doc);
  }

  get left(): number {
    return MARGIN.side;
  }
  get width(): number {
    return this.doc.page.width - 2 * MARGIN.side;
  }
  get top(): number {
    return MARGIN.top;
  }
  /** Below this nothing is written but the foot. */
  get bottom(): number {
    return this.doc.page.height - MARGIN.bottom;
  }
  /** How much fits on a sheet that is empty. */
  get height(): number {
    return this.bottom - this.top;
  }

  begin(landscape = false): void {
    const [width, height] = papers[this.paper].map((mm) => mm * MM) as [number, number];
    this.doc.addPage({ size: landscape ? [height, width] : [width, height], margin: 0 });
    this.y = this.top;
  }

  /** Begins a new sheet where so much does not fit any more. */
  need(height: number): void {
    if (this.y + height > this.bottom && this.y > this.top) this.begin();
  }

  /** Writes lines one below the other, over as many sheets as they take. */
  write(lines: readonly string[], style: Style, x = this.left): void {
    const step = style.size * LEADING;
    for (const line of lines) {
      this.need(step);
      this.set.line(line, x, this.y, style);
      this.y += step;
    }
  }
}
