import type { Plan } from '../plan';
import { csvText } from '../formats';
import { type Log, type Written, writtenAt } from './fold';
import { aboutText, entryText } from './words';

/** The log as a table, for whoever keeps it elsewhere. */

const HEAD = [
  'Number',
  'When (UTC)',
  'Clock of the device (UTC)',
  'Who',
  'Change',
  'Kind',
  'About',
  'What',
  'Reading',
  'Note',
  'Photos',
  'Taken back',
];

/** One row for each entry in the order in which they came in; those that were not sent yet come last, without a number. */
export function logCsv(plan: Plan, log: Log): string {
  const rowOf = (entry: Written): string[] => {
    const { body } = entry;
    return [
      entry.seq === undefined ? '' : String(entry.seq),
      writtenAt(entry),
      entry.at,
      entry.author,
      String(entry.revision),
      body.kind,
      body.kind === 'note' || body.kind === 'defect' ? aboutText(plan, body.about) : '',
      entryText(plan, log, entry),
      'reading' in body ? body.reading : '',
      'note' in body ? body.note : '',
      'photos' in body ? body.photos.join(' ') : '',
      log.corrections.has(entry.id) ? 'yes' : '',
    ];
  };
  return csvText([HEAD, ...log.entries.map(rowOf)]);
}
