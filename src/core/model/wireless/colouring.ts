/**
 * Weighted colouring: who shares the air gets options so that what they take from each other is least, and of these so
 * that the fewest change. Whole numbers only, so that equal is equal.
 */

export interface Vertex {
  /** What each option costs by itself. */
  readonly own: readonly number[];
  /** The options by number in the table of overlaps. */
  readonly options: readonly number[];
  /** The place among its options of what it has now; −1 for none of them. */
  readonly now: number;
}

/** Two who hear each other. */
export interface Edge {
  readonly a: number;
  readonly b: number;
  /** What sharing one unit of overlap costs, and what standing side by side does. */
  readonly weight: number;
  readonly beside: number;
}

export interface Problem {
  readonly vertices: readonly Vertex[];
  readonly edges: readonly Edge[];
  /** Units of overlap of two options, by number; −1 where they stand side by side. */
  readonly overlap: readonly (readonly number[])[];
  /** So many options there are at most that overlap nowhere. */
  readonly apart: number;
}

export interface Solution {
  /** The place of the chosen option among those of each vertex. */
  readonly chosen: readonly number[];
  readonly cost: number;
  readonly changes: number;
  /** No choice costs less than this. */
  readonly bound: number;
  /** It is known that nothing costs less, and of what costs the same nothing changes fewer. */
  readonly best: boolean;
}

interface Near {
  readonly to: number;
  readonly weight: number;
  readonly beside: number;
}

const between = (overlap: number, { weight, beside }: Pick<Near, 'weight' | 'beside'>): number =>
  overlap < 0 ? beside : overlap * weight;

function neighbours({ vertices, edges }: Problem): Near[][] {
  const near: Near[][] = vertices.map(() => []);
  for (const { a, b, weight, beside } of edges) {
    near[a]!.push({ to: b, weight, beside });
    near[b]!.push({ to: a, weight, beside });
  }
  return near;
}

/** What a choice costs, without the changes. */
export function costOf(problem: Problem, chosen: readonly number[]): number {
  const { vertices, edges, overlap } = problem;
  const option = (i: number) => vertices[i]!.options[chosen[i]!]!;
  return (
    vertices.reduce((sum, { own }, i) => sum + own[chosen[i]!]!, 0) +
    edges.reduce((sum, edge) => sum + between(overlap[option(edge.a)]![option(edge.b)]!, edge), 0)
  );
}

export const changesOf = ({ vertices }: Problem, chosen: readonly number[]): number =>
  vertices.filter(({ now }, i) => now !== chosen[i]).length;

/** The parts that have no edge between them. */
function parts(near: readonly Near[][]): number[][] {
  const seen = new Set<number>();
  const found: number[][] = [];
  for (let start = 0; start < near.length; start++) {
    if (seen.has(start)) continue;
    const part = [start];
    seen.add(start);
    for (const at of part)
      for (const { to } of near[at]!)
        if (!seen.has(to)) {
          seen.add(to);
          part.push(to);
        }
    found.push(part);
  }
  return found;
}

/** The search in one part. Cost and changes are one number: `scale` costs are worth one. */
class Search {
  /** What each vertex would cost at each of its options, with the others where they are. */
  private readonly at: number[][];
  readonly chosen: number[];

  constructor(
    private readonly problem: Problem,
    private readonly near: readonly Near[][],
    private readonly part: readonly number[],
    private readonly scale: number,
  ) {
    const { vertices } = problem;
    this.at = vertices.map(() => []);
    this.chosen = vertices.map(() => -1);
    for (const i of part) this.at[i] = vertices[i]!.own.map((_, o) => this.alone(i, o));
  }

  private alone(i: number, o: number): number {
    const { own, now } = this.problem.vertices[i]!;
    return own[o]! * this.scale + (now === o ? 0 : 1);
  }

  /** Adds what a vertex at an option does to its neighbours; takes it away with −1. */
  private spread(i: number, o: number, sign: 1 | -1): void {
    const { vertices, overlap } = this.problem;
    const row = overlap[vertices[i]!.options[o]!]!;
    for (const edge of this.near[i]!) {
      const costs = this.at[edge.to]!;
      const { options } = vertices[edge.to]!;
      for (let other = 0; other < options.length; other++) {
        const units = row[options[other]!]!;
        if (units !== 0) costs[other]! += sign * between(units, edge) * this.scale;
      }
    }
  }

  private set(i: number, o: number): void {
    if (this.chosen[i]! >= 0) this.spread(i, this.chosen[i]!, -1);
    this.chosen[i] = o;
    this.spread(i, o, 1);
  }
  private clear(i: number): void {
    this.spread(i, this.chosen[i]!, -1);
    this.chosen[i] = -1;
  }

  /** One after the other, the one with most at stake first, each where it costs least. */
  private greedy(): void {
    const stake = (i: number) => this.near[i]!.reduce((sum, { weight }) => sum + weight, 0);
    for (const i of [...this.part].sort((a, b) => stake(b) - stake(a) || a - b))
      this.set(i, cheapest(this.at[i]!));
  }

  private total(): number {
    // Half of what neighbours do to each other is counted at either of them.
    return this.part.reduce((sum, i) => {
      const o = this.chosen[i]!;
      const alone = this.alone(i, o);
      return sum + alone + (this.at[i]![o]! - alone) / 2;
    }, 0);
  }

  /** Steps to the best neighbouring choice, also where that is worse, and never soon back (tabu search). */
  improve(rounds: number): { readonly chosen: number[]; readonly total: number } {
    this.greedy();
    let total = this.total();
    let best = { chosen: [...this.chosen], total };
    const until = this.problem.vertices.map(({ own }) => own.map(() => 0));
    for (let round = 1; round <= rounds; round++) {
      let [move, to, gain] = [-1, -1, Infinity];
      for (const i of this.part) {
        const costs = this.at[i]!;
        const here = costs[this.chosen[i]!]!;
        for (let o = 0; o < costs.length; o++) {
          if (o === this.chosen[i]) continue;
          const step = costs[o]! - here;
          if (step >= gain) continue;
          if (until[i]![o]! > round && total + step >= best.total) continue;
          [move, to, gain] = [i, o, step];
        }
      }
      if (move < 0) break;
      const from = this.chosen[move]!;
      this.set(move, to);
      total += gain;
      // A length that does not repeat, so that no circle does.
      until[move]![from] = round + 7 + ((round * 7919) % 11);
      if (total < best.total) best = { chosen: [...this.chosen], total };
    }
    return best;
  }

  /** Every choice that could still be better; null where that takes more than so many steps. */
  exact(known: { readonly chosen: number[]; readonly total: number }, steps: number) {
    const order = [...this.part].sort((a, b) => this.near[b]!.length - this.near[a]!.length || a - b);
    let best = known;
    let left = steps;
    for (const i of this.part) if (this.chosen[i]! >= 0) this.clear(i);
    const least = (from: number): number => {
      let sum = 0;
      for (let k = from; k < order.length; k++) sum += Math.min(...this.at[order[k]!]!);
      return sum;
    };
    const descend = (k: number, spent: number): void => {
      if (left-- <= 0) return;
      if (k === order.length) {
        best = { chosen: [...this.chosen], total: spent };
        return;
      }
      if (spent + least(k) >= best.total) return;
      const i = order[k]!;
      const costs = this.at[i]!.map((cost, o) => [cost, o] as const).sort((a, b) => a[0] - b[0]);
      for (const [cost, o] of costs) {
        if (spent + cost >= best.total) break;
        this.set(i, o);
        descend(k + 1, spent + cost);
        this.clear(i);
      }
    };
    descend(0, 0);
    return left > 0 ? best : null;
  }
}

const cheapest = (costs: readonly number[]): number => costs.indexOf(Math.min(...costs));

/** So many pairs of a group share an option at least, when there are fewer that lie apart: spread evenly (Turán’s theorem). */
function sharing(group: number, apart: number): number {
  const [each, more] = [Math.floor(group / apart), group % apart];
  const pairs = (n: number) => (n * (n - 1)) / 2;
  return more * pairs(each + 1) + (apart - more) * pairs(each);
}

/** So many pairs of a graph share an option at least: those of groups that all hear one another and have no pair in common. */
function sharedPairs(edges: readonly Edge[], size: number, apart: number): number {
  const joined = new Uint8Array(size * size);
  const near: number[][] = Array.from({ length: size }, () => []);
  for (const { a, b } of edges) {
    joined[a * size + b] = joined[b * size + a] = 1;
    near[a]!.push(b);
    near[b]!.push(a);
  }
  let found = 0;
  for (const { a, b } of edges) {
    if (!joined[a * size + b]) continue;
    const group = [a, b];
    for (const to of near[a]!)
      if (to !== b && group.every((member) => joined[member * size + to])) group.push(to);
    if (group.length <= apart) continue;
    found += sharing(group.length, apart);
    for (const x of group) for (const y of group) joined[x * size + y] = 0;
  }
  return found;
}

/** Weights are cut into layers so thick: finer ones take longer and bound a little better. */
const LAYER = 4;

/**
 * A cost that no choice stays below: what each costs at its cheapest alone, and what cannot be kept apart. A weight is the number of
 * layers below it, so what pairs cost is the number of pairs that share in each layer; in each that is bounded by groups that
 * all hear one another. They share at least the smallest overlap there is.
 */
function boundOf({ vertices, edges, overlap, apart }: Problem): number {
  const alone = vertices.reduce((sum, { own }) => sum + Math.min(...own), 0);
  const units = overlap.flat().filter((one) => one > 0);
  const sorted = [...edges].sort((x, y) => y.weight - x.weight);
  let layers = 0;
  for (let level = LAYER; level <= (sorted[0]?.weight ?? 0); level += LAYER)
    layers += sharedPairs(
      sorted.filter(({ weight }) => weight >= level),
      vertices.length,
      apart,
    );
  return units.length === 0 ? alone : alone + LAYER * Math.min(...units) * layers;
}

/** More than so many who hear one another are not proved. */
const PROVABLE = 40;

/** How many steps are spent on proving what is best, and how many rounds on looking for it. */
export interface Effort {
  readonly steps: number;
  readonly rounds: number;
}

/** The choice that costs least, and of these one that changes least; proved to be so where that is not too long. */
export function colour(problem: Problem, { steps, rounds }: Effort): Solution {
  const near = neighbours(problem);
  const scale = problem.vertices.length + 1;
  const chosen = problem.vertices.map(() => 0);
  let best = true;
  for (const part of parts(near)) {
    const search = new Search(problem, near, part, scale);
    const found = search.improve(rounds);
    // A large part is not worth trying: every step looks at all of it.
    const proved = part.length > PROVABLE ? null : search.exact(found, steps);
    if (!proved) best = false;
    for (const i of part) chosen[i] = (proved ?? found).chosen[i]!;
  }
  const cost = costOf(problem, chosen);
  const bound = best ? cost : Math.min(cost, boundOf(problem));
  return { chosen, cost, changes: changesOf(problem, chosen), bound, best };
}
