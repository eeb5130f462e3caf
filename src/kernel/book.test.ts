import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { type Book, bookChapters, writeBook } from '../core/book';
import { readPlanFile } from '../core/formats';
import { logOf } from '../core/log';
import { type Plan, finish, siteOf, withRecord } from '../core/plan';
import { deviceNamed } from '../core/testing/gear';
import { arranged } from '../server/documents/map';
import { bookPdf } from '../server/documents/pdf/book/book';
import type { Paper } from '../server/documents/pdf/book/sheet';

/** The book as poppler reads it: its pages, its text, its fonts and its structure. */

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-book-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

const creamery = readPlanFile(fs.readFileSync('demo/3-creamery.json', 'utf8'));
/** Nothing may be said on the way: poppler complains about what is not as ISO 32000 wants it. */
function run(program: string, ...args: string[]): string {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1e8 });
  if (status !== 0 || stderr !== '') throw new Error(`${program}: ${stderr}`);
  return stdout;
}
async function written(plan: Plan, paper: Paper, leftOut: readonly string[] = []) {
  const map = await arranged(plan);
  const sources = { plan, log: logOf([]), revision: 12, today: '2026-12-01', map };
  const book = finish(writeBook(sources, new Set(leftOut)));
  const file = path.join(folder, `${paper}${leftOut.length}.pdf`);
  fs.writeFileSync(file, await finish(bookPdf(book, paper)));
  return { book, file };
}
const textOf = (file: string, ...args: string[]) => run('pdftotext', '-layout', ...args, file, '-');
const onlyChapters = (...kept: string[]) =>
  bookChapters.map(({ id }) => id).filter((id) => !kept.includes(id));

/** On which page the contents say that each chapter begins. */
function contentsOf({ chapters }: Book, cover: string): [string, number][] {
  return chapters.map(({ title }) => {
    const line = cover.split('\n').find((one) => one.trim().startsWith(`${title}  `));
    return [title, Number(/(\d+)\s*$/.exec(line ?? '')?.[1])];
  });
}

test('it has contents that lead to the pages, bookmarks, page numbers and a title', async () => {
  const { book, file } = await written(creamery, 'a4');
  const info = run('pdfinfo', file);
  expect(info).toMatch(/^Title: +Saltmarsh Creamery: network, change 12$/m);
  expect(info).toMatch(/^Tagged: +yes$/m);
  expect(info).toMatch(/\(A4\)$/m);
  const pages = Number(/^Pages: +(\d+)$/m.exec(info)![1]);
  const cover = textOf(file, '-l', '1');
  for (const [title, page] of contentsOf(book, cover)) {
    const text = textOf(file, '-f', String(page), '-l', String(page));
    expect([title, page, text.split('\n').some((line) => line.trim() === title)]).toEqual([
      title,
      page,
      true,
    ]);
    expect(text).toContain(`${page} of ${pages}`);
  }
  const places = run('pdfinfo', '-dests', file);
  for (const { id } of book.chapters) expect(places).toContain(`"chapter-${id}"`);
});

test('a reader of the screen hears headings, tables with heads, lists and what figures show', async () => {
  const { book, file } = await written(creamery, 'letter');
  expect(run('pdfinfo', file)).toMatch(/\(letter\)$/m);
  const structure = run('pdfinfo', '-struct-text', file);
  const headings = [...structure.matchAll(/^ +H1 \(block\)[^\n]*\n +"([^"]*)"/gm)].map(([, text]) => text);
  expect(headings).toEqual(['Saltmarsh Creamery', ...book.chapters.map(({ title }) => title)]);
  const tables = book.chapters.flatMap(({ blocks }) => blocks.filter(({ kind }) => kind === 'table'));
  const count = (tag: string) => [...structure.matchAll(new RegExp(`^ *${tag}(?: \\(|\\b)`, 'gm'))].length;
  expect(count('Table')).toBe(tables.length);
  const rows = tables.reduce((sum, one) => sum + (one.kind === 'table' ? one.rows.length + 1 : 0), 0);
  expect(count('TR')).toBe(rows);
  const drawings = book.chapters.flatMap(({ blocks }) => blocks.filter(({ kind }) => kind === 'drawing'));
  expect(count('Figure')).toBe(drawings.length);
});

test('every font is in the file, and names of any script are read back as they were written', async () => {
  const names = {
    'sw-a': 'Łódź-Ωмега',
    'sw-b': 'коммутатор-2',
    'sw-c': '配电室-交换机',
    'gw-1': 'スイッチ-한국',
    'ap-01': 'נתב-ראשי',
    'ap-02': 'สวิตช์',
    'ap-03': 'स्विच',
  };
  let plan = withRecord(creamery, 'site', 'site', { ...siteOf(creamery), name: 'مصنع سكر' });
  for (const [name, other] of Object.entries(names))
    plan = withRecord(plan, 'device', deviceNamed(creamery, name).id, {
      ...deviceNamed(creamery, name),
      name: other,
    });
  const { file } = await written(plan, 'a4', onlyChapters('ports', 'when'));
  const fonts = run('pdffonts', file).split('\n').slice(2).filter(Boolean);
  expect(fonts.length).toBeGreaterThan(8);
  for (const line of fonts) expect(line).toMatch(/ yes +yes +yes +\d+ +\d+$/);
  // Where a line turns, poppler puts marks of direction into it (UAX 9), and a word at a time.
  const text = run('pdftotext', file, '-')
    .normalize('NFKC')
    .replace(/[\u200e\u200f\u202a-\u202e]/g, '');
  for (const name of [...Object.values(names), siteOf(plan).name].flatMap((one) => one.split(/[ -]/)))
    expect(text).toContain(name.normalize('NFKC'));
});

test('contents that find no room on the cover stand on the next sheet', async () => {
  const [vlan] = [...creamery.vlan.values()];
  let plan = withRecord(creamery, 'site', 'site', { ...siteOf(creamery), name: 'Yard '.repeat(16).trim() });
  for (let i = 0; i < 90; i++)
    plan = withRecord(plan, 'vlan', `more${i}`, { ...vlan!, id: `more${i}`, vid: 2000 + i });
  const { book, file } = await written(
    plan,
    'letter',
    onlyChapters('plain', 'segments', 'cautions', 'secrets'),
  );
  const contents = contentsOf(book, textOf(file, '-f', '2', '-l', '2'));
  expect(contents.map(([title]) => title)).toEqual(book.chapters.map(({ title }) => title));
  for (const [, page] of contents) expect(page).toBeGreaterThan(2);
});

test('what is longer than a sheet goes on on the next', async () => {
  const note = Array.from({ length: 400 }, (_, i) => `word${i}`).join(' ');
  const address = [...creamery.address.values()].find(({ gateway }) => !gateway)!;
  const plan = withRecord(creamery, 'address', address.id, { ...address, note: note.repeat(3) });
  const { file } = await written(plan, 'a4', onlyChapters('addresses'));
  const text = textOf(file).replace(/\s+/g, ' ');
  for (const word of ['word0', 'word199', 'word399']) expect(text).toContain(word);
  // Heads stand again on every sheet that a table goes on on.
  const info = run('pdfinfo', file);
  const pages = Number(/^Pages: +(\d+)$/m.exec(info)![1]);
  for (let page = 3; page < pages; page++)
    expect(textOf(file, '-f', String(page), '-l', String(page))).toMatch(/Address +Name/);
});
