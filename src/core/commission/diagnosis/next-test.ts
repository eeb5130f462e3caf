import type { Trial } from '../../exercises';
import { type Work, groupBy } from '../../plan';
import type { Suspect } from './suspects';

/** Which test tells most of the suspects apart. */

/** So many tests are looked at for one that tells them apart. */
export const LOOKED_AT = 160;

/** How likely the place is guessed after a test: of each thing that may be seen the likeliest place. */
function telling(suspects: readonly Suspect[], trial: Trial): readonly [number, number] {
  const seen = groupBy(suspects, (suspect) => suspect.seen(trial));
  let [guessed, apart] = [0, 0];
  for (const items of seen.values()) {
    const places = groupBy(items, ({ place }) => place.key);
    const weights = [...places.values()].map((own) => own.reduce((sum, { weight }) => sum + weight, 0));
    const all = weights.reduce((sum, weight) => sum + weight, 0);
    guessed += Math.max(...weights);
    apart -= all * all;
  }
  return [guessed, apart];
}

const better = (a: readonly [number, number], b: readonly [number, number]): boolean =>
  a[0] > b[0] + 1e-9 || (a[0] > b[0] - 1e-9 && a[1] > b[1] + 1e-9);

/** The trial after which one knows most likely where to look; null where all say the same. */
export function* nextTrial(suspects: readonly Suspect[], open: readonly Trial[]): Work<Trial | null> {
  let best: { readonly trial: Trial; readonly tells: readonly [number, number] } | null = null;
  const [one, ...others] = [...groupBy(suspects, ({ place }) => place.key).values()].map(([first]) => first!);
  for (const trial of open.slice(0, LOOKED_AT)) {
    yield;
    // Most trials say the same of all places: one suspect of each shows that soonest.
    const seen = one?.seen(trial);
    if (others.every((other) => other.seen(trial) === seen)) continue;
    const tells = telling(suspects, trial);
    if (!best || better(tells, best.tells)) best = { trial, tells };
  }
  return best?.trial ?? null;
}
