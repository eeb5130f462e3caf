import {
  type Outcome,
  type Result,
  type WireSetting,
  decodeSetting,
  restAfter,
  runSheetOf,
  siteTests,
  workedOrder,
} from '../../src/core/commission';
import type { Body, NewEntry } from '../../src/core/log';
import { type Plan, finish } from '../../src/core/plan';

/** The logbooks of the demo sites: one run worked off to its end and signed, another half done. */

/** Said of a step instead of done: what was seen, or why it was left out. */
interface Said {
  /** Of the steps that are told together, from 1. */
  readonly at: number;
  readonly outcome: Exclude<Outcome, 'done'>;
  readonly note: string;
  readonly reading?: string;
}
export interface DemoVisit {
  readonly name: string;
  /** Who is there besides, and what for. */
  readonly with: string;
  readonly why: string;
  readonly author: string;
  readonly begins: string;
  readonly said: readonly Said[];
  /** How much of it is done: 1 for all. */
  readonly share: number;
}
export interface DemoBook {
  readonly finished: DemoVisit & { readonly customer: string; readonly end: string };
  readonly underWay: DemoVisit & { readonly left: string };
  /** So many tests came out as expected. */
  readonly tests: number;
}

/** In seconds; what a step takes swings around it by a third. */
const TAKES: Readonly<Record<WireSetting['setting']['kind'] | 'sit', number>> = {
  sit: 140,
  vlans: 55,
  port: 50,
  parachute: 60,
  management: 75,
  pages: 240,
  save: 20,
  plug: 150,
  check: 200,
};
const SIGNATURES = {
  installer:
    'M40 96C60 30 84 30 96 92C104 118 118 60 132 66C146 72 140 96 156 92C190 84 204 40 220 70C232 96 250 92 300 70',
  customer:
    'M36 60C70 20 88 110 60 112C40 112 60 70 96 74C120 78 110 104 130 100C160 94 170 50 182 84C190 106 220 88 330 82',
};

class Book {
  readonly entries: NewEntry[] = [];
  private now = 0;
  private drawn = 1;

  constructor(private readonly site: string) {}

  begin(visit: DemoVisit): void {
    this.now = Date.parse(visit.begins);
  }
  pass(kind: keyof typeof TAKES): void {
    // A fixed sequence (MINSTD), so that the books are the same whenever they are made.
    this.drawn = (this.drawn * 48271) % 2147483647;
    this.now += Math.round(TAKES[kind] * (0.67 + (0.66 * this.drawn) / 2147483647)) * 1000;
  }
  add(author: string, body: Body): string {
    const id = `${this.site}${String(this.entries.length + 1).padStart(5, '0')}`;
    this.entries.push({ id, author, at: new Date(this.now).toISOString(), revision: 0, body });
    return id;
  }
}

/** Works a run off, step by step as it is told, as far as was wanted. */
function workOff(book: Book, plan: Plan, visit: DemoVisit): string {
  const { name, author, said, share } = visit;
  book.pass('sit');
  const run = book.add(author, { kind: 'run', name, edits: [] });
  let rest = { after: 0, entries: finish(workedOrder(plan)).entries };
  const all = runSheetOf(plan, [], rest.entries).sheet.steps;
  const results: Result[] = [];
  for (let at = 0; ;) {
    const { sheet, next } = runSheetOf(plan, results, rest.entries);
    if (!next || (share < 1 && at >= all * share)) return run;
    if (next.kind === 'sit') {
      book.pass('sit');
      book.add(author, { kind: 'sit', run, socket: next.socket });
      results.push(next);
    } else {
      at++;
      const step = sheet.seats[0]!.steps[0]!;
      const other = said.find((one) => one.at === at);
      const outcome = other?.outcome ?? 'done';
      const does = `${plan.device.get(step.device)!.name}: ${step.does}`;
      const { note = '', reading = '' } = other ?? {};
      book.pass(next.steps[0]!.setting.kind);
      book.add(author, {
        kind: 'result',
        run,
        steps: [...next.steps],
        does,
        outcome,
        reading,
        note,
        photos: [],
      });
      for (const one of next.steps) results.push({ kind: 'step', step: decodeSetting(one), outcome });
      if (outcome === 'differs') {
        const about = { table: 'device' as const, id: step.device };
        const defect = book.add(author, {
          kind: 'defect',
          text: `${step.does}: ${note}`,
          about,
          run,
          photos: [],
        });
        // It is looked into at once, and what was to do is done after.
        book.pass('check');
        if (share === 1)
          book.add(author, {
            kind: 'defectState',
            defect,
            state: 'mended',
            note: 'Firmware renewed, then it took it.',
            photos: [],
          });
      }
    }
    rest = finish(restAfter(plan, rest, results));
  }
}

/** The entries of a logbook, oldest first. */
export function bookOf(site: string, plan: Plan, { finished, underWay, tests }: DemoBook): NewEntry[] {
  const book = new Book(site);
  const { author, customer, end } = finished;
  const come = (visit: DemoVisit) => {
    book.begin(visit);
    return book.add(visit.author, { kind: 'visit', with: visit.with, note: visit.why });
  };
  const first = come(finished);
  const run = workOff(book, plan, finished);
  book.add(author, { kind: 'runEnd', run, note: end });
  const rounds = siteTests(plan, null).rounds.flatMap((round) =>
    round.tests.map((one) => ({ ...one, at: round.at })),
  );
  for (const { key, at, does, expects } of rounds.filter(({ amiss }) => amiss === '').slice(0, tests)) {
    book.pass('vlans');
    book.add(author, {
      kind: 'test',
      key,
      at,
      does,
      expects,
      outcome: 'as-expected',
      reading: '',
      note: '',
      photos: [],
    });
  }
  const day = new Date(Date.parse(finished.begins)).toISOString().slice(0, 10);
  for (const [role, name] of [
    ['installer', author],
    ['customer', customer],
  ] as const) {
    book.pass('sit');
    book.add(author, { kind: 'signOff', role, name, day, signature: SIGNATURES[role], note: '' });
  }
  book.add(author, { kind: 'visitEnd', visit: first, note: '' });
  const second = come(underWay);
  workOff(book, plan, underWay);
  book.pass('pages');
  book.add(underWay.author, { kind: 'visitEnd', visit: second, note: underWay.left });
  return book.entries;
}
