import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import type { Station } from '../findings';
import {
  type Step,
  applySteps,
  invertSteps,
  type Plan,
  badInput,
  type Progress,
  type Work,
  counted,
  finish,
} from '../plan';
import { trialsFor } from './choice';
import { kinds } from './kinds';
import { type FaultKind, type Level, levelWords, stepsOf } from './kind';
import { type Symptom, symptomsOf } from './symptoms';
import { Readings, type Trial, type Turned, trialKey, turned } from './trials';

/** An exercise: one to three faults put into a plan, and what people say who notice them. */

export interface PlantedFault {
  readonly kind: string;
  /** What was done. */
  readonly told: string;
  readonly station: Station;
  readonly since: string;
  readonly near: readonly string[];
  readonly steps: readonly Step[];
}

export interface Order {
  /** The same number on the same plan gives the same faults. */
  readonly seed: number;
  readonly level: Level;
  readonly count: number;
}

export interface Exercise {
  readonly faults: readonly PlantedFault[];
  /** The plan with all of them in it. */
  readonly plan: Plan;
}

/** The kinds that an exercise of a level is drawn from: its own and the ones below, but nothing easy in a hard one. */
export const kindsOf = (level: Level): readonly FaultKind[] =>
  kinds.filter((kind) => (level === 1 ? kind.level === 1 : kind.level === level || kind.level === level - 1));

/** What one fault by itself does to a plan that had none. */
export interface Alone {
  readonly readings: Readings;
  readonly trials: readonly Trial[];
  readonly changes: readonly Turned[];
  readonly symptoms: readonly Symptom[];
}

/** A plan with the steps of faults in it; null when they do not go together. */
export function withSteps(plan: Plan, steps: readonly Step[]): Plan | null {
  const applied = applySteps(plan, steps);
  return applied.ok ? applied.plan : null;
}

/** The plan an exercise began with, without its faults. */
export function soundPlan(start: Plan, faults: readonly Pick<PlantedFault, 'steps'>[]): Plan {
  const sound = withSteps(start, invertSteps(faults.flatMap(({ steps }) => steps)));
  if (!sound) throw new RangeError('these faults are not in this plan');
  return sound;
}

export function fallout(
  sound: Readings,
  fault: Pick<PlantedFault, 'steps' | 'near'>,
  today: string | null,
): Alone | null {
  const broken = withSteps(sound.plan, fault.steps);
  if (!broken) return null;
  const readings = new Readings(broken, today);
  const trials = trialsFor(sound.plan, fault.near);
  const changes = turned(sound, readings, trials);
  return { readings, trials, changes, symptoms: symptomsOf(sound, trials, changes) };
}

const records = (steps: readonly Step[]) => steps.map(({ table, id }) => `${table} ${id}`);

/** How many places of a kind are looked at before another kind is tried. */
const PLACES = 4;
/** How many faults are tried in all before it is said that this site has no more to offer. */
const TRIES = 150;

/**
 * Draws faults that somebody notices: each by itself changes what a trial says, its first symptom is its own and still
 * shows when all are in. Tells how many were tried, of the most that are. Throws a Refusal when the site is too small for
 * so many.
 */
export const drawing = (plan: Plan, order: Order, today: string | null): Work<Exercise, Progress> =>
  counted(drawn(plan, order, today), TRIES + PLACES);

function* drawn(plan: Plan, { seed, level, count }: Order, today: string | null): Work<Exercise> {
  const random = xoroshiro128plus(seed);
  const shuffled = <T>(items: readonly T[]): T[] => {
    const left = [...items];
    for (let i = left.length - 1; i > 0; i--) {
      const j = uniformInt(random, 0, i);
      [left[i], left[j]] = [left[j]!, left[i]!];
    }
    return left;
  };
  const sound = new Readings(plan, today);
  const faults: PlantedFault[] = [];
  const shown: Trial[] = [];
  const taken = new Set<string>();
  let current = plan;
  let tries = 0;
  for (const kind of shuffled(kindsOf(level))) {
    if (faults.length === count || tries > TRIES) break;
    for (const spot of shuffled(kind.spots(plan)).slice(0, PLACES)) {
      tries++;
      yield;
      const steps = stepsOf(plan, spot, `x${seed.toString(36)}n${faults.length}`);
      const { id, station, since } = kind;
      const fault = { kind: id, told: spot.told, station, since, near: spot.near, steps };
      if (steps.length === 0 || records(steps).some((key) => taken.has(key))) continue;
      const first = fallout(sound, fault, today)?.symptoms[0];
      const next = first && withSteps(current, steps);
      if (!next) continue;
      const all = new Readings(next, today);
      const own = first.trials[0]!;
      const keys = new Set(shown.map(trialKey));
      const shows = (trial: Trial) => turned(sound, all, [trial]).length > 0;
      if (keys.has(trialKey(own)) || ![...shown, own].every(shows)) continue;
      for (const key of records(steps)) taken.add(key);
      faults.push(fault);
      shown.push(own);
      current = next;
      break;
    }
  }
  if (faults.length < count)
    throw badInput(
      `In this site ${faults.length === 0 ? 'no fault' : `only ${faults.length}`} of this difficulty (${levelWords[level]}) would be noticed by anybody; choose fewer faults or another difficulty, or add devices and cables first.`,
      'count',
    );
  return { faults, plan: current };
}

/** Draws an exercise at once. */
export const drawExercise = (plan: Plan, order: Order, today: string | null): Exercise =>
  finish(drawing(plan, order, today));
