import LineBreaker from 'linebreak';
import { type Weight, isShaped, registerFonts, runsOf } from './fonts';

/** Lines of text of any script: how wide they are, where they may be broken, and how they are drawn. */

/** Millimetres in points. */
export const MM = 72 / 25.4;
/** From one line to the next, by the size of the letters. */
export const LEADING = 1.28;
/** At which size widths are looked up; they grow with the size. */
const MEASURED = 100;

export interface Style {
  readonly size: number;
  readonly weight?: Weight;
  readonly colour?: string;
}

export class Typesetter {
  private readonly widths = new Map<string, number>();

  constructor(readonly doc: PDFKit.PDFDocument) {
    registerFonts(doc);
  }

  /** In points. */
  width(text: string, { size, weight = 400 }: Style): number {
    const key = `${weight}${text}`;
    let width = this.widths.get(key);
    if (width === undefined) {
      width = runsOf(text, weight).reduce(
        (sum, run) => sum + this.doc.font(run.font).fontSize(MEASURED).widthOfString(run.text),
        0,
      );
      this.widths.set(key, width);
    }
    return (width * size) / MEASURED;
  }

  /** Draws one line; `y` is its top. */
  line(text: string, x: number, y: number, { size, weight = 400, colour = '#000' }: Style): void {
    const shaped = isShaped(text);
    // What is copied, searched or read aloud is the text, not its shapes.
    if (shaped) this.doc.markContent('Span', { actual: text });
    let at = x;
    for (const run of runsOf(text, weight)) {
      this.doc.font(run.font).fontSize(size).fillColor(colour).text(run.text, at, y, { lineBreak: false });
      at += (this.doc.fontSize(MEASURED).widthOfString(run.text) * size) / MEASURED;
    }
    if (shaped) this.doc.endMarkedContent();
  }

  /** A text in lines no wider than that, broken where its script allows (UAX 14), and within a word that is too long. */
  lines(text: string, style: Style, width: number): string[] {
    return text.split('\n').flatMap((part) => this.linesOf(part, style, width));
  }

  private linesOf(text: string, style: Style, width: number): string[] {
    if (this.width(text, style) <= width) return [text];
    const lines: string[] = [];
    const breaker = new LineBreaker(text);
    let line = '';
    let from = 0;
    for (let next = breaker.nextBreak(); next; next = breaker.nextBreak()) {
      const word = text.slice(from, next.position);
      from = next.position;
      if (this.width((line + word).trimEnd(), style) <= width) {
        line += word;
        continue;
      }
      if (line !== '') lines.push(line.trimEnd());
      const parts = this.within(word, style, width);
      lines.push(...parts.slice(0, -1));
      line = parts.at(-1)!;
    }
    if (line.trimEnd() !== '') lines.push(line.trimEnd());
    return lines;
  }

  /** A word in parts that fit. */
  private within(word: string, style: Style, width: number): string[] {
    const parts: string[] = [];
    let part = '';
    for (const letter of word) {
      if (part !== '' && this.width((part + letter).trimEnd(), style) > width) {
        parts.push(part);
        part = '';
      }
      part += letter;
    }
    return [...parts, part];
  }

  /** The text cut to fit, with a sign that it is. */
  cut(text: string, style: Style, width: number): string {
    let shown = text;
    while (shown.length > 1 && this.width(shown, style) > width) shown = `${shown.slice(0, -2)}…`;
    return shown;
  }
}

/** The bytes of a document, when it is ended. */
export function bytesOf(doc: PDFKit.PDFDocument): Promise<Uint8Array<ArrayBuffer>> {
  const parts: Buffer[] = [];
  return new Promise((resolve, reject) => {
    doc.on('data', (part: Buffer) => parts.push(part));
    doc.on('end', () => resolve(new Uint8Array(Buffer.concat(parts))));
    doc.on('error', reject);
  });
}
