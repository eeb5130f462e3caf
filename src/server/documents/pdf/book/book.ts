import PDFDocument from 'pdfkit';
import type { Block, Book } from '../../../../core/book';
import { textOn } from '../../../../core/model/segments';
import type { Work } from '../../../../core/plan';
import { LEADING, MM, type Style, bytesOf } from '../typesetter';
import { type Struct, drawFigure, drawSignatures, wantsTurned } from './figures';
import { type Paper, Sheet } from './sheet';
import { drawTable } from './table';

/** The book as a PDF: tagged, with bookmarks, contents and page numbers, its text selectable and its figures vectors. */

const INK = '#12201a';
const MUTED = '#46554c';
const BODY: Style = { size: 9.5, colour: INK };
const TITLE: Style = { size: 18, weight: 700, colour: INK };
const HEADING: Style = { size: 11.5, weight: 700, colour: INK };
const SMALL: Style = { size: 8, colour: MUTED };

/** What a list item or a fact is set in by. */
const INDENT = 16;
const FACT = 95;
/** From one line of the contents to the next. */
const ENTRY = 14;

/** A chapter begins on a new sheet when more than so much of this one is written on. */
const GOES_ON = 0.55;

interface Entry {
  readonly title: string;
  readonly page: number;
  readonly destination: string;
}

class Writer {
  readonly doc: PDFKit.PDFDocument;
  private readonly sheet: Sheet;
  private readonly root: Struct;
  private readonly entries: Entry[] = [];
  private contents: { readonly page: number; readonly struct: Struct; readonly y: number } | null = null;

  constructor(
    private readonly book: Book,
    paper: Paper,
  ) {
    const options = {
      autoFirstPage: false,
      bufferPages: true,
      margin: 0,
      lang: 'en',
      tagged: true,
      displayTitle: true,
      pdfVersion: '1.7' as const,
      subset: 'PDF/UA' as const,
      info: {
        Title: `${book.site}: network, change ${book.revision}`,
        CreationDate: new Date(`${book.today}T12:00:00Z`),
      },
    };
    this.doc = new PDFDocument(options as object);
    this.sheet = new Sheet(this.doc, paper);
    this.root = this.doc.struct('Document');
    this.doc.addStructure(this.root);
  }

  /** So many steps `write` yields: the cover, the chapters and the rest. */
  static stepsOf = ({ chapters }: Book): number => chapters.length + 2;

  *write(): Work<void> {
    this.cover();
    yield;
    for (const { id, title, blocks } of this.book.chapters) {
      this.chapter(id, title, blocks);
      yield;
    }
    this.fillContents();
    this.feet();
    this.root.end();
    this.doc.end();
    yield;
  }

  private paragraph(parent: Struct, text: string, style: Style, tag = 'P', x = this.sheet.left): void {
    const lines = this.sheet.set.lines(text, style, this.sheet.left + this.sheet.width - x);
    parent.add(this.doc.struct(tag, {}, () => this.sheet.write(lines, style, x)));
    this.sheet.y += style.size * 0.4;
  }

  private cover(): void {
    const { sheet, doc, book } = this;
    sheet.begin();
    const part = doc.struct('Sect', { title: 'Cover' });
    this.root.add(part);
    doc.markContent('Artifact', { type: 'Layout' });
    doc.rect(0, 0, doc.page.width, 9 * MM).fill(INK);
    doc.endMarkedContent();
    sheet.y = 52 * MM;
    this.paragraph(part, book.site, { ...TITLE, size: 30 }, 'H1');
    this.paragraph(part, 'The network of this site', { ...BODY, size: 14 });
    sheet.y += 3 * MM;
    this.jackets(part);
    sheet.y += 8 * MM;
    const rows: (readonly [string, string])[] = [
      ['State', book.state],
      ['Change', String(book.revision)],
      ['Written', book.today],
      ['Kind of site', book.kind],
      ...book.signed.map((who): readonly [string, string] => ['Signed', who]),
    ];
    this.facts(part, rows, { ...BODY, size: 11 });
    sheet.y += 10 * MM;
    const toc = doc.struct('TOC');
    sheet.need((book.chapters.length + 2) * ENTRY);
    this.paragraph(part, 'Contents', HEADING, 'H2');
    part.add(toc);
    this.contents = { page: this.pages - 1, struct: toc, y: sheet.y };
  }

  /** The segments as they are marked everywhere, on sockets, cables and screens. */
  private jackets(part: Struct): void {
    const { sheet, doc, book } = this;
    const style: Style = { size: 9, weight: 700 };
    const [height, gap] = [17, 4];
    let x = sheet.left;
    const all = doc.struct('P');
    part.add(all);
    for (const { text, colour } of book.segments) {
      const width = sheet.set.width(text, style) + 12;
      if (x + width > sheet.left + sheet.width) {
        x = sheet.left;
        sheet.y += height + gap;
      }
      const [left, top] = [x, sheet.y];
      all.add(() => {
        doc.rect(left, top, width, height).fill(colour);
        sheet.set.line(text, left + 6, top + 3.5, { ...style, colour: textOn(colour) });
      });
      x += width + gap;
    }
    all.end();
    sheet.y += height;
  }

  private get pages(): number {
    const { start, count } = this.doc.bufferedPageRange();
    return start + count;
  }

  private facts(parent: Struct, rows: readonly (readonly [string, string])[], style: Style = BODY): void {
    const { sheet, doc } = this;
    const room = sheet.width - FACT;
    for (const [what, value] of rows) {
      const lines = sheet.set.lines(value, style, room);
      sheet.need(style.size * LEADING);
      parent.add(
        doc.struct('P', {}, () => {
          sheet.set.line(what, sheet.left, sheet.y, { ...style, colour: MUTED });
          sheet.write(lines, style, sheet.left + FACT);
        }),
      );
    }
    sheet.y += 5;
  }

  private chapter(id: string, title: string, blocks: readonly Block[]): void {
    const { sheet, doc } = this;
    const lies = this.lies(blocks);
    // A chapter that finds room goes on below the one before.
    if (lies || this.entries.length === 0 || sheet.y > sheet.top + sheet.height * GOES_ON) sheet.begin(lies);
    else sheet.y += 24;
    const part = doc.struct('Sect', { title });
    this.root.add(part);
    const destination = `chapter-${id}`;
    doc.addNamedDestination(destination, 'XYZ', 0, sheet.y - 10, null);
    this.entries.push({ title, page: this.pages, destination });
    const mark = doc.outline.addItem(title);
    this.paragraph(part, title, TITLE, 'H1');
    doc.markContent('Artifact', { type: 'Layout' });
    doc
      .lineWidth(2)
      .moveTo(sheet.left, sheet.y)
      .lineTo(sheet.left + sheet.width, sheet.y)
      .stroke(INK);
    doc.endMarkedContent();
    sheet.y += 10;
    blocks.forEach((block, at) => {
      if (block.kind === 'heading') {
        const below = blocks.slice(at + 1);
        if (at > 0 && this.lies(below)) sheet.begin(true);
        sheet.need(this.together(below));
      }
      this.block(block, part, mark);
    });
    part.end();
  }

  /** How much of what follows a heading stands on the same sheet: the facts and the drawing below it, or a few lines. */
  private together(below: readonly Block[]): number {
    const [first, second] = below;
    const facts = first?.kind === 'facts' ? first.rows.length * BODY.size * LEADING : 0;
    const figure = [first, second].find((block) => block?.kind === 'drawing');
    const drawing = figure?.kind === 'drawing' && !figure.turns ? figure.drawing : null;
    const height = drawing ? Math.min(1, this.sheet.width / drawing.width) * drawing.height : 0;
    return Math.min(this.sheet.height, 70 + facts + height);
  }

  /** Does what follows lie on its side, as nothing but a few words stand before a large drawing? */
  private lies(blocks: readonly Block[]): boolean {
    const first = blocks.find(({ kind }) => kind !== 'text');
    return first?.kind === 'drawing' && first.turns && wantsTurned(this.sheet, first.drawing);
  }

  private block(block: Block, part: Struct, mark: PDFKit.PDFOutline): void {
    const { sheet } = this;
    switch (block.kind) {
      case 'heading':
        sheet.y += 6;
        mark.addItem(block.text);
        return this.paragraph(part, block.text, HEADING, 'H2');
      case 'text':
        return this.paragraph(part, block.text, BODY);
      case 'caution':
        return this.caution(part, block.text);
      case 'list':
        return this.list(part, block.items, block.numbered);
      case 'facts':
        return this.facts(part, block.rows);
      case 'table':
        return drawTable(sheet, block, part);
      case 'drawing':
        return drawFigure(sheet, block, part);
      case 'signatures':
        return drawSignatures(sheet, block.of, part);
    }
  }

  private caution(part: Struct, text: string): void {
    const { sheet, doc } = this;
    const lines = sheet.set.lines(text, BODY, sheet.width - INDENT);
    const height = lines.length * BODY.size * LEADING;
    sheet.need(height);
    doc.markContent('Artifact', { type: 'Layout' });
    doc.rect(sheet.left, sheet.y, 4, height).fill(INK);
    doc.endMarkedContent();
    part.add(doc.struct('P', {}, () => sheet.write(lines, BODY, sheet.left + INDENT)));
    sheet.y += 7;
  }

  private list(part: Struct, items: readonly string[], numbered: boolean): void {
    const { sheet, doc } = this;
    const all = doc.struct('L');
    part.add(all);
    items.forEach((item, i) => {
      const lines = sheet.set.lines(item, BODY, sheet.width - INDENT);
      sheet.need(BODY.size * LEADING * Math.min(2, lines.length));
      const li = doc.struct('LI');
      all.add(li);
      li.add(
        doc.struct('Lbl', {}, () => sheet.set.line(numbered ? `${i + 1}.` : '–', sheet.left, sheet.y, BODY)),
      );
      li.add(doc.struct('LBody', {}, () => sheet.write(lines, BODY, sheet.left + INDENT)));
      li.end();
      sheet.y += 3;
    });
    all.end();
    sheet.y += 4;
  }

  /** On the cover, once the pages are known; a click leads there. */
  private fillContents(): void {
    const { sheet, doc } = this;
    const { page, struct, y } = this.contents!;
    doc.switchToPage(page);
    this.entries.forEach(({ title, page: number, destination }, i) => {
      const at = y + i * ENTRY;
      const [shown, right] = [String(number), sheet.left + sheet.width * 0.62];
      const item = doc.struct('TOCI');
      struct.add(item);
      const link = doc.struct('Link');
      item.add(link);
      link.add(() => {
        sheet.set.line(title, sheet.left, at, BODY);
        sheet.set.line(shown, right - sheet.set.width(shown, BODY), at, BODY);
      });
      doc.goTo(sheet.left, at, right - sheet.left, ENTRY, destination, {
        Contents: new String(title),
        structParent: link,
      } as object);
      link.end();
      item.end();
    });
    struct.end();
  }

  /** What stands below every page. */
  private feet(): void {
    const { doc, sheet, book, pages } = this;
    for (let page = 0; page < pages; page++) {
      doc.switchToPage(page);
      const y = doc.page.height - 11 * MM;
      const told = `${page + 1} of ${pages}`;
      const left = `${book.site}, change ${book.revision}, ${book.today}`;
      doc.markContent('Artifact', { type: 'Pagination' });
      sheet.set.line(sheet.set.cut(left, SMALL, sheet.width * 0.8), sheet.left, y, SMALL);
      sheet.set.line(told, sheet.left + sheet.width - sheet.set.width(told, SMALL), y, SMALL);
      doc.endMarkedContent();
    }
  }
}

/** How many times `bookPdf` yields. */
export const stepsOfPdf = Writer.stepsOf;

/** The book on sheets of a size. Yields after each chapter. */
export function* bookPdf(book: Book, paper: Paper): Work<Promise<Uint8Array<ArrayBuffer>>> {
  const writer = new Writer(book, paper);
  const bytes = bytesOf(writer.doc);
  yield* writer.write();
  return bytes;
}
