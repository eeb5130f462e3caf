import PDFDocument from 'pdfkit';
import { create as createCode } from 'qrcode';
import { type Label, type LabelGrid, pageSizes, placeOnSheet } from '../../../core/formats';
import { MM, type Style, Typesetter, bytesOf } from './typesetter';

/** Sheets of labels as a PDF: text that can be searched, codes and colours as vectors. */

/** How much larger the first line is than the others, and the smallest that is read, in points. */
const BIG = 1.6;
const LEAST = 4;
/** The modules of a code are not read by a phone when they are smaller, in millimetres. */
const LEAST_MODULE = 0.35;

type Doc = PDFKit.PDFDocument;

/** Writes one line; it is made smaller until it fits, and cut where that does not help. */
function line(set: Typesetter, text: string, style: Style, x: number, y: number, width: number): void {
  let { size } = style;
  while (size > style.size * 0.6 && set.width(text, { ...style, size }) > width) size -= 0.25;
  set.line(set.cut(text, { ...style, size }, width), x, y, { ...style, size });
}

/** A code as squares; nothing where it would be too small to read. Returns its side. */
function code(doc: Doc, text: string, right: number, top: number, most: number): number {
  const { modules } = createCode(text, { errorCorrectionLevel: 'M' });
  // The light rim that readers need is the edge of the label.
  const side = Math.min(most, 20 * MM);
  const one = side / modules.size;
  if (one < LEAST_MODULE * MM) return 0;
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(row, column)) doc.rect(right - side + column * one, top + row * one, one, one);
  doc.fill('#000');
  return side;
}

function draw(set: Typesetter, label: Label, base: string, grid: LabelGrid, x: number, y: number): void {
  const { doc } = set;
  const [width, height] = [grid.width, grid.printed ?? grid.height].map((mm) => mm * MM) as [number, number];
  // Printers leave the rim of a page white.
  const edge = (height < 15 * MM ? 1 : 3) * MM;
  const [left, top, inner] = [x + edge, y + edge, height - 2 * edge];
  const strip = label.colour === null ? 0 : 2.5 * MM;
  if (label.colour !== null) doc.rect(left, top, 1.5 * MM, inner).fill(label.colour);
  const side = code(doc, `${base}${label.path}`, x + width - edge, top, Math.min(inner, width * 0.4));
  const room = width - 2 * edge - strip - (side === 0 ? 0 : side + edge);
  // Where there is no room for a line that can be read it is left out.
  const lines = label.lines.slice(0, Math.floor((inner - 1.2 * BIG * LEAST) / (1.2 * LEAST)));
  const unit = inner / (1.2 * BIG + 1.2 * lines.length);
  const [big, small] = [Math.min(20, BIG * unit), Math.min(11, unit)];
  line(set, label.big, { size: big, weight: 700 }, left + strip, top, room);
  lines.forEach((text, at) =>
    line(set, text, { size: small }, left + strip, top + 1.2 * big + 1.2 * at * small, room),
  );
}

/** Labels on sheets, beginning after the places that are gone. The codes open `base` and what follows of each record. */
export function labelsPdf(
  labels: readonly Label[],
  grid: LabelGrid,
  skip: number,
  base: string,
  title: string,
): Promise<Uint8Array<ArrayBuffer>> {
  const [width, height] = pageSizes[grid.page].map((mm) => mm * MM) as [number, number];
  const doc = new PDFDocument({
    size: [width, height],
    margin: 0,
    autoFirstPage: false,
    lang: 'en',
    info: { Title: title },
  });
  const set = new Typesetter(doc);
  const done = bytesOf(doc);
  let sheets = 0;
  labels.forEach((label, index) => {
    const { sheet, x, y } = placeOnSheet(grid, index, skip);
    for (; sheets <= sheet; sheets++) doc.addPage();
    draw(set, label, base, grid, x * MM, y * MM);
  });
  if (sheets === 0) doc.addPage();
  doc.end();
  return done;
}
