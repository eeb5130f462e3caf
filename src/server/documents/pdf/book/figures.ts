import type { Drawing, Shape } from '../../../../core/formats';
import type { Block, Signature } from '../../../../core/book';
import type { Sheet } from './sheet';

/** Drawings and signatures as vectors with text that can be searched. */

/** A drawing that would become smaller than this is put on a sheet of its own, turned, where that is of use. */
const SMALL = 0.6;
const GAIN = 1.2;
const AFTER = 8;

type Figure = Extract<Block, { kind: 'drawing' }>;

function draw({ doc, set }: Sheet, shape: Shape): void {
  if (shape.kind === 'text') {
    const style = { size: shape.size, weight: shape.bold ? 700 : 400, colour: shape.fill } as const;
    const x = shape.middle ? shape.x - set.width(shape.text, style) / 2 : shape.x;
    // The point of a text is on the line its letters stand on; a line is drawn from its top.
    set.line(shape.text, x, shape.y - shape.size * 0.92, style);
    return;
  }
  if (shape.kind === 'line') {
    doc.moveTo(shape.from.x, shape.from.y).lineTo(shape.to.x, shape.to.y).stroke(shape.line);
    return;
  }
  const { x, y, width, height, fill, line, dashed } = shape;
  if (fill !== null) doc.rect(x, y, width, height).fill(fill);
  if (line === undefined) return;
  doc.rect(x, y, width, height);
  if (dashed) doc.dash(3, { space: 2 });
  doc.stroke(line);
  doc.undash();
}

/** How large a drawing may be on a sheet as it stands and on one that is turned; never larger than drawn. */
function scalesOf({ width: w, height: h, doc: { page } }: Sheet, { width, height }: Drawing) {
  const scaleIn = (wide: number, high: number) => Math.min(1, wide / width, high / height);
  const longer = Math.abs(page.height - page.width);
  const upright = page.height > page.width;
  const [own, other] = [
    scaleIn(w, h),
    upright ? scaleIn(w + longer, h - longer) : scaleIn(w - longer, h + longer),
  ];
  return upright ? { upright: own, turned: other } : { upright: other, turned: own };
}
/** Is a drawing too small on a sheet that stands upright? */
export function wantsTurned(sheet: Sheet, drawing: Drawing): boolean {
  const { upright, turned } = scalesOf(sheet, drawing);
  return upright < SMALL && turned > upright * GAIN;
}

/** As large as it may be in what is left of a sheet or on the next. */
export function drawFigure(sheet: Sheet, { drawing, turns }: Figure, parent: Struct): void {
  const { title, width, height, shapes } = drawing;
  const { doc } = sheet;
  const turned = turns && wantsTurned(sheet, drawing);
  const lies = doc.page.width > doc.page.height;
  if (turned && !lies) sheet.begin(true);
  const room = sheet.bottom - sheet.y - AFTER;
  const whole = Math.min(1, sheet.width / width, (sheet.height - AFTER) / height);
  // What is written above a turned drawing may take a little of its height.
  const fits = room / height;
  const scale = turned && fits < whole && fits > whole * 0.75 ? fits : whole;
  sheet.need(height * scale + AFTER);
  const { left, y } = sheet;
  const bbox: [number, number, number, number] = [left, y, left + width * scale, y + height * scale];
  parent.add(
    doc.struct('Figure', { alt: title, bbox } as object, () => {
      doc.save().translate(left, y).scale(scale).lineWidth(1);
      for (const shape of shapes) draw(sheet, shape);
      doc.restore();
    }),
  );
  sheet.y += height * scale + AFTER;
  // What follows stands upright again.
  if (turned) sheet.y = sheet.bottom;
}
export type Struct = PDFKit.PDFStructureElement;

const BOX = { width: 200, height: 75, gap: 14, below: 34 } as const;

/** Two beside each other, each above a line with who it is of. */
export function drawSignatures(sheet: Sheet, of: readonly Signature[], parent: Struct): void {
  const { doc, set, left } = sheet;
  for (let at = 0; at < of.length; at += 2) {
    sheet.need(BOX.height + BOX.below);
    const { y } = sheet;
    of.slice(at, at + 2).forEach(({ path, name, about }, i) => {
      const x = left + i * (BOX.width + BOX.gap);
      parent.add(
        doc.struct(
          'Figure',
          { alt: `Signature of ${name}`, bbox: [x, y, x + BOX.width, y + BOX.height] } as object,
          () => {
            doc.save().translate(x, y).scale(0.5).lineCap('round').lineWidth(2.5);
            doc.path(path).stroke('#000');
            doc.restore();
            doc
              .lineWidth(0.7)
              .moveTo(x, y + BOX.height)
              .lineTo(x + BOX.width, y + BOX.height)
              .stroke('#000');
          },
        ),
      );
      parent.add(
        doc.struct('P', {}, () => {
          set.line(set.cut(name, { size: 9 }, BOX.width), x, y + BOX.height + 3, { size: 9, weight: 700 });
          set.line(set.cut(about, { size: 8 }, BOX.width), x, y + BOX.height + 15, { size: 8 });
        }),
      );
    });
    sheet.y += BOX.height + BOX.below;
  }
}
