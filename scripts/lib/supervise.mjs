import { pause } from './paths.mjs';

/** Waits between two attempts, in seconds: longer each time. */
const WAITS = [1, 2, 4, 8, 15, 30];
/** What ran this long, in milliseconds, is counted as having come up. */
const STEADY = 60_000;

/**
 * Keeps something running that ends by itself: says so, starts it again with growing waits, and gives up loudly. `start` begins it
 * and resolves to a promise of its end; `give` is called with the last word.
 */
export async function keepRunning({ name, start, ending, say, give }) {
  for (let failures = 0; !ending();) {
    const began = Date.now();
    let why;
    try {
      why = await (await start()).ended;
    } catch (error) {
      why = error.message;
    }
    if (ending()) return;
    failures = Date.now() - began > STEADY ? 1 : failures + 1;
    if (failures > WAITS.length) {
      give(`${name} ended ${failures} times in a row (${why}); it is not started again.`);
      return;
    }
    const wait = WAITS[failures - 1];
    say(`${name} ended by itself (${why}); it is started again in ${wait} s.`);
    await pause(wait * 1000);
  }
}
