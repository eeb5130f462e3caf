import type { Station } from '../findings';
import { recordIn, recordTitle } from '../plan';
import type { Alone, PlantedFault } from './draw';
import type { Level } from './kind';
import { type Readings, type Trial, trialTitle, turned } from './trials';

/** What is told of an exercise while it is being solved: the complaints, and hints against points. */

export interface Complaint {
  readonly text: string;
  readonly trials: readonly Trial[];
}

/** What people say of a fault: its first symptom, in an easy exercise with what they know to have happened. */
export function complaintOf(fault: Pick<PlantedFault, 'since'>, alone: Alone, level: Level): Complaint {
  const [symptom] = alone.symptoms;
  // An exercise that is kept may be looked at by a later version, in which nobody would notice it any more.
  if (!symptom) return { text: 'Something is not as it was.', trials: [] };
  const said = symptom.say(level === 3);
  return { text: `${said}${level === 3 ? '' : `, ${fault.since}`}.`, trials: symptom.trials };
}

/** Is there still reason to complain? */
export const stands = (sound: Readings, now: Readings, { trials }: Complaint): boolean =>
  turned(sound, now, trials).length > 0;

const stationNames: Readonly<Record<Station, string>> = {
  brief: 'Brief',
  segments: 'Segments',
  addresses: 'Addresses',
  gear: 'Gear & ports',
  wireless: 'Wireless',
  internet: 'Internet side',
  policy: 'Who may talk',
  guards: 'Guards',
  rehearse: 'Rehearse, Spanning trees',
};

export const pointsOfFault = 10;
/** What each hint of a fault costs, in their order; all of them cost what the fault is worth. */
export const hintCosts = [1, 2, 3, 4] as const;
export const costOf = (hints: number): number =>
  hintCosts.slice(0, hints).reduce<number>((sum, cost) => sum + cost, 0);

/** The hints of a fault, each telling more: the station, a trial that shows it, the record, what was done. */
export function hintsOf(fault: PlantedFault, alone: Alone): readonly string[] {
  const { plan } = alone.readings;
  const telling = alone.changes.find(({ trial }) => trial.kind !== 'clash') ?? alone.changes[0];
  const step = fault.steps[0]!;
  const record = recordIn(plan, step.table, step.id) ?? step.before!;
  return [
    `It is to be seen under ${stationNames[fault.station]}.`,
    telling
      ? `${trialTitle(plan, telling.trial)}, would say, were it the only fault: “${telling.after.text}”. Without it: “${telling.before.text}”.`
      : 'No trial tells of it.',
    step.before === null
      ? `Something was added: ${recordTitle(plan, step.table, record)}.`
      : `It is at ${recordTitle(plan, step.table, record)}.`,
    fault.told,
  ];
}
