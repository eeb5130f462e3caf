import bidiFactory from 'bidi-js';
import { create, type Font } from 'fontkit';
import fs from 'node:fs';
import path from 'node:path';

/** The fonts of documents: those of the program, and others for the letters these have not. */

export type Weight = 400 | 700;
const folder = path.join(process.cwd(), 'node_modules/@fontsource');
const file = (family: string, part: string, weight: Weight) =>
  path.join(folder, family, 'files', `${family}-${part}-${weight}-normal.woff`);

/** In the order in which they are asked for a letter. */
const parts: readonly (readonly [family: string, part: string])[] = [
  ['atkinson-hyperlegible-next', 'latin'],
  ['atkinson-hyperlegible-next', 'latin-ext'],
  ['noto-sans', 'latin'],
  ['noto-sans', 'vietnamese'],
  ['noto-sans', 'cyrillic'],
  ['noto-sans', 'cyrillic-ext'],
  ['noto-sans', 'greek'],
  ['noto-sans', 'greek-ext'],
  ['vazirmatn', 'arabic'],
  ['noto-sans-hebrew', 'hebrew'],
  ['noto-sans', 'devanagari'],
  ['noto-sans-bengali', 'bengali'],
  ['noto-sans-tamil', 'tamil'],
  ['noto-sans-thai', 'thai'],
  ['noto-sans-armenian', 'armenian'],
  ['noto-sans-georgian', 'georgian'],
];
/** Han, kana and hangul: of the packages of the system, as it is larger than all others together. In one weight. */
const EAST_ASIA = '/usr/share/fonts/truetype/wqy/wqy-microhei.ttc';

interface Known {
  readonly name: string;
  readonly path: string;
  /** Which font it is, where a file holds several. */
  readonly member?: string;
  /** Opened when it is first asked for a letter. */
  font?: Font;
}
const known = new Map<Weight, readonly Known[]>();
function fontsOf(weight: Weight): readonly Known[] {
  let all = known.get(weight);
  if (!all) {
    all = [
      ...parts.map(([family, part]): Known => ({
        name: `${family} ${part} ${weight}`,
        path: file(family, part, weight),
      })),
      ...(fs.existsSync(EAST_ASIA)
        ? [{ name: `East Asia ${weight}`, path: EAST_ASIA, member: 'WenQuanYiMicroHei' }]
        : []),
    ];
    known.set(weight, all);
  }
  return all;
}

/** Makes a document know the fonts by their names; what is not used is not in it. */
export function registerFonts(doc: PDFKit.PDFDocument): void {
  for (const weight of [400, 700] as const)
    for (const { name, path: at, member } of fontsOf(weight)) doc.registerFont(name, at, member);
}

const found = new Map<string, string | null>();
/** The name of the first font that has a letter; null where none has. */
function fontFor(letter: string, weight: Weight): string | null {
  const key = `${weight}${letter}`;
  let name = found.get(key);
  if (name === undefined) {
    const has = (one: Known): boolean =>
      (one.font ??= create(fs.readFileSync(one.path), one.member) as Font).hasGlyphForCodePoint(
        letter.codePointAt(0)!,
      );
    name = fontsOf(weight).find(has)?.name ?? null;
    found.set(key, name);
  }
  return name;
}

const bidi = bidiFactory();
/** Letters of scripts that run from right to left, and what turns the direction. */
const TURNED =
  /[\u0590-\u08ff\u200f\u202b\u202e\u2067\ufb1d-\ufdff\ufe70-\ufefc\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;

/** Scripts whose letters are drawn in another order than they are written in, from left to right. */
const SHAPED = /[\u0900-\u0eff]/u;
/** Would who takes the drawn letters one by one read something else than what is written? */
export const isShaped = (text: string): boolean => SHAPED.test(text);

export interface Run {
  readonly text: string;
  /** Its name in the document. */
  readonly font: string;
}

/** Runs with their levels in the order in which they are drawn (UAX 9, rule L2). */
function inOrder(runs: readonly (Run & { readonly level: number })[]): Run[] {
  const order = [...runs];
  const most = Math.max(0, ...runs.map(({ level }) => level));
  for (let level = most; level > 0; level--)
    for (let i = 0; i < order.length; i++) {
      let end = i;
      while (end < order.length && order[end]!.level >= level) end++;
      if (end > i) order.splice(i, end - i, ...order.slice(i, end).reverse());
      i = Math.max(i, end);
    }
  return order;
}

/**
 * A line in runs of one font and one direction each, from left to right as it is drawn; letters within a run stand as they are
 * read. A letter that no font has stands as a question mark.
 */
export function runsOf(text: string, weight: Weight): Run[] {
  const line = text.normalize('NFC');
  const levels = TURNED.test(line) ? bidi.getEmbeddingLevels(line).levels : null;
  const runs: { text: string; font: string; level: number }[] = [];
  const [plain] = fontsOf(weight);
  let at = 0;
  for (const letter of line) {
    const last = runs.at(-1);
    const level = levels?.[at] ?? 0;
    at += letter.length;
    const own = fontFor(letter, weight);
    const shown = own === null ? '?' : letter;
    const font = own ?? plain!.name;
    if (last?.font === font && last.level === level) last.text += shown;
    else runs.push({ text: shown, font, level });
  }
  return levels ? inOrder(runs) : runs;
}
