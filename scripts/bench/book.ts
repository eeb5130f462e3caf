import { propose } from '../../src/core/brief';
import { writeBook } from '../../src/core/book';
import { logOf } from '../../src/core/log';
import { finish } from '../../src/core/plan';
import { arranged } from '../../src/server/documents/map';
import { bookPdf } from '../../src/server/documents/pdf/book/book';
import { plantOf } from './brief-plant';
import { show } from './measure';

/** The book of a site with so many devices: map, words and sheets, each beside one of twice as many. */
async function bookOf(devices: number) {
  const { plan } = finish(propose(plantOf(devices)));
  const laps: number[] = [];
  let start = performance.now();
  const lap = () => {
    const now = performance.now();
    laps.push(now - start);
    start = now;
  };
  const map = await arranged(plan);
  lap();
  const book = finish(writeBook({ plan, log: logOf([]), revision: 1, today: '2026-12-01', map }));
  lap();
  const bytes = await finish(bookPdf(book, 'a4'));
  lap();
  return { laps, size: bytes.length, devices: plan.device.size };
}

async function main(): Promise<void> {
  // What is loaded and compiled at first is no part of either.
  await bookOf(40);
  const once = await bookOf(152);
  const twice = await bookOf(304);
  console.log(`Book: ${once.devices} devices, ${Math.round(once.size / 1024)} kB`);
  const name = `with ${twice.devices} devices`;
  ['map arranged', 'written', 'set on sheets'].forEach((what, i) =>
    show(`  ${what}`, once.laps[i]!, { name, ms: twice.laps[i]! }),
  );
  const sum = ({ laps }: typeof once) => laps.reduce((a, b) => a + b, 0);
  show('  all of it', sum(once), { name, ms: sum(twice) });
}
void main();
