import { create, type Font } from 'fontkit';
import fs from 'node:fs';
import path from 'node:path';

/** The fonts of documents: those of the program, and others for the letters these have not. */

type Weight = 400 | 700;
const folder = path.join(process.cwd(), 'node_modules/@fontsource');
const file = (family: string, part: string, weight: Weight) =>
  path.join(folder, family, 'files', `${family}-${part}-${weight}-normal.woff`);

/** In the order in which they are asked for a letter. */
const parts: readonly (readonly [family: string, part: string])[] = [
  ['atkinson-hyperlegible-next', 'latin'],
  ['atkinson-hyperlegible-next', 'latin-ext'],
  ['noto-sans', 'vietnamese'],
  ['noto-sans', 'cyrillic'],
  ['noto-sans', 'cyrillic-ext'],
  ['noto-sans', 'greek'],
  ['noto-sans', 'greek-ext'],
];

interface Known {
  readonly name: string;
  readonly bytes: Buffer;
  readonly font: Font;
}
const loaded = new Map<Weight, readonly Known[]>();
function fontsOf(weight: Weight): readonly Known[] {
  let all = loaded.get(weight);
  if (!all) {
    all = parts.map(([family, part]) => {
      const bytes = fs.readFileSync(file(family, part, weight));
      return { name: `${family} ${part} ${weight}`, bytes, font: create(bytes) as Font };
    });
    loaded.set(weight, all);
  }
  return all;
}

/** Makes a document know the fonts by their names. */
export function registerFonts(doc: PDFKit.PDFDocument): void {
  for (const weight of [400, 700] as const)
    for (const { name, bytes } of fontsOf(weight)) doc.registerFont(name, bytes);
}

export interface Run {
  readonly text: string;
  /** Its name in the document. */
  readonly font: string;
}
/** A text in runs of one font each. A letter that no font has stands as a question mark. */
export function runsOf(text: string, weight: Weight): Run[] {
  const all = fontsOf(weight);
  const runs: { text: string; font: string }[] = [];
  for (const letter of text.normalize('NFC')) {
    const found = all.find(({ font }) => font.hasGlyphForCodePoint(letter.codePointAt(0)!));
    const font = (found ?? all[0]!).name;
    const shown = found ? letter : '?';
    const last = runs.at(-1);
    if (last?.font === font) last.text += shown;
    else runs.push({ text: shown, font });
  }
  return runs;
}
