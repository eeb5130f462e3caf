import { FindingsEngine } from '../findings';
import { carriedText } from '../model/wiring';
import {
  type Step,
  describeChange,
  equal,
  type Plan,
  recordIn,
  portTitle,
  recordTitle,
  stepsBetween,
  type Progress,
  type Work,
  counted,
  finish,
} from '../plan';
import { trialsFor } from './choice';
import { type Alone, type PlantedFault, fallout, soundPlan, withSteps } from './draw';
import { complaintOf, costOf, pointsOfFault } from './hints';
import type { Level } from './kind';
import { Readings, type Trial, type Turned, trialTitle, turned } from './trials';

/** What became of an exercise: what was mended, what each test could have told, what was broken on the way. */

/** One thing that could be looked at or asked, and what it said. */
export interface Telling {
  readonly by: string;
  readonly now: string;
  readonly meant: string;
}

export interface FaultReport {
  readonly complaint: string;
  readonly told: string;
  /** `back`: every record is as it was. `otherwise`: everything works again in another way. */
  readonly mended: 'back' | 'otherwise' | 'no';
  readonly hints: number;
  readonly points: number;
  readonly tellings: readonly Telling[];
  /** What the findings, which were put away, would have said of it. */
  readonly findings: readonly string[];
}

export interface ExerciseReport {
  readonly points: number;
  readonly of: number;
  readonly faults: readonly FaultReport[];
  /** What the mending itself broke or opened. */
  readonly harm: readonly Telling[];
  /** Records that are not as they were before the faults, by what they are called. */
  readonly left: readonly string[];
}

/** What a thing that works no more because of the mending costs. */
const HARM = 2;
const SHOWN: Readonly<Record<Trial['kind'], number>> = {
  talk: 3,
  lease: 1,
  join: 2,
  names: 1,
  clash: 1,
  storm: 1,
};

/** What the views of the records showed of a step. */
function seenAt(sound: Plan, broken: Plan, step: Step): Telling[] {
  if (step.table === 'port' && step.before && step.after) {
    const [was, is] = [sound.port.get(step.id)!, broken.port.get(step.id)!];
    const text = (plan: Plan, port: typeof was) =>
      `${carriedText(plan, port)}${port.pvid === port.untagged ? '' : `, PVID ${port.pvid === null ? 'none' : plan.vlan.get(port.pvid)!.vid}`}${port.enabled ? '' : ', switched off'}${port.accepts === 'all' ? '' : `, takes ${port.accepts} frames only`}`;
    return [{ by: `Gear & ports, ${portTitle(sound, was)}`, now: text(broken, is), meant: text(sound, was) }];
  }
  if (step.table === 'cable') {
    const title = (plan: Plan) => {
      const cable = plan.cable.get(step.id);
      return cable ? recordTitle(plan, 'cable', cable) : 'no cable';
    };
    return [{ by: 'Gear & ports', now: title(broken), meant: title(sound) }];
  }
  return [];
}

/** At most a few of each instrument, those that say most first. */
function tellingsOf(sound: Plan, fault: PlantedFault, alone: Alone): Telling[] {
  const left: Record<string, number> = { ...SHOWN };
  const asked = alone.changes
    .filter(({ trial }) => left[trial.kind]!-- > 0)
    .map((change) => telling(sound, change));
  return [...asked, ...fault.steps.flatMap((step) => seenAt(sound, alone.readings.plan, step))];
}

const telling = (plan: Plan, { trial, before, after }: Turned): Telling => ({
  by: trialTitle(plan, trial),
  now: after.text,
  meant: before.text,
});

/** What the findings say of each fault by itself that they did not say without it. */
function* newFindings(
  sound: Plan,
  faults: readonly PlantedFault[],
  alone: readonly Alone[],
  today: string,
): Work<string[][]> {
  const engine = new FindingsEngine(sound, today);
  const known = new Set(engine.all().map(({ key }) => key));
  const found: string[][] = [];
  for (const at of faults.keys()) {
    yield;
    const { added } = engine.advance(alone[at]!.readings.plan);
    engine.advance(sound);
    found.push(
      added
        .filter(({ key }) => !known.has(key))
        .slice(0, 3)
        .map(({ what, because }) => `${what}. ${because}`),
    );
  }
  return found;
}

const isBack = (now: Plan, { steps }: PlantedFault): boolean =>
  steps.every(({ table, id, before }) => equal(recordIn(now, table, id) ?? null, before));

/**
 * Which faults are still there, judged by what works: those with which alone the network would say most nearly what it
 * says now. Where two sets explain it alike the larger one counts, for what another fault hides is not mended.
 */
function* stillThere(
  sound: Readings,
  now: Readings,
  trials: readonly Trial[],
  faults: readonly PlantedFault[],
  today: string,
): Work<{ readonly left: ReadonlySet<PlantedFault>; readonly expected: Readings }> {
  const open = faults.filter((fault) => !isBack(now.plan, fault));
  const unlike = (expected: Readings) =>
    trials.filter((trial) => expected.of(trial).verdict !== now.of(trial).verdict).length;
  let best = { left: new Set<PlantedFault>(), expected: sound, unlike: unlike(sound) };
  for (let set = 1; set < 2 ** open.length; set++) {
    const left = new Set(open.filter((_, at) => (set >> at) & 1));
    const plan = withSteps(
      sound.plan,
      [...left].flatMap(({ steps }) => steps),
    );
    if (!plan) continue;
    yield;
    const expected = new Readings(plan, today);
    const found = { left, expected, unlike: unlike(expected) };
    if (found.unlike < best.unlike || (found.unlike === best.unlike && left.size >= best.left.size))
      best = found;
  }
  return best;
}

export interface Solved {
  /** The plan as the exercise began, and as it was handed in. */
  readonly start: Plan;
  readonly now: Plan;
  readonly faults: readonly PlantedFault[];
  readonly level: Level;
  /** How many hints were taken of each fault. */
  readonly hints: readonly number[];
}

/** Judges an exercise that is handed in, by what works and not by how it was mended. Tells how many of its parts are done. */
export const reporting = (solved: Solved, today: string): Work<ExerciseReport, Progress> => {
  const { length } = solved.faults;
  return counted(judging(solved, today), 2 * length + 2 ** length + 1);
};

function* judging({ start, now, faults, level, hints }: Solved, today: string): Work<ExerciseReport> {
  const sound = new Readings(soundPlan(start, faults), today);
  const mending = new Readings(now, today);
  const alone: Alone[] = [];
  for (const fault of faults) {
    alone.push(fallout(sound, fault, today)!);
    yield;
  }
  const near = faults.flatMap((fault) => fault.near);
  const trials = trialsFor(sound.plan, near);
  const { left, expected } = yield* stillThere(sound, mending, trials, faults, today);
  const mended = faults.map((fault, at): FaultReport['mended'] => {
    if (isBack(now, fault)) return 'back';
    const shown = alone[at]!.changes.map(({ trial }) => trial);
    return left.has(fault) || turned(expected, mending, shown).length > 0 ? 'no' : 'otherwise';
  });
  // What the faults that are still there do, alone or together, is no harm of the mending.
  const harm = turned(expected, mending, trials).filter(
    ({ trial }) => turned(sound, mending, [trial]).length > 0,
  );
  yield;
  const findings = yield* newFindings(sound.plan, faults, alone, today);
  yield;
  const reports = faults.map((fault, at): FaultReport => {
    const points = mended[at] === 'no' ? 0 : pointsOfFault - costOf(hints[at] ?? 0);
    return {
      complaint: complaintOf(fault, alone[at]!, level).text,
      told: fault.told,
      mended: mended[at]!,
      hints: hints[at] ?? 0,
      points,
      tellings: tellingsOf(sound.plan, fault, alone[at]!),
      findings: findings[at]!,
    };
  });
  const changes = { label: '', steps: stepsBetween(sound.plan, now) };
  const earned = reports.reduce((sum, { points }) => sum + points, 0) - HARM * harm.length;
  return {
    points: Math.max(0, earned),
    of: pointsOfFault * faults.length,
    faults: reports,
    harm: harm.slice(0, 8).map((change) => telling(sound.plan, change)),
    left: [...new Set(describeChange(sound.plan, changes).map(({ what }) => what))].slice(0, 12),
  };
}

/** Judges it at once. */
export const reportOf = (solved: Solved, today: string): ExerciseReport => finish(reporting(solved, today));
