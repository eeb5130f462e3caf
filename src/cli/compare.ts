import { type FieldDifference, alignedTo, describeChange, stepsBetween } from '../core/plan';
import type { Command } from './command';
import { planIn } from './files';

/** A difference in one line. */
export const differenceText = ({ what, kind, field, before, after }: FieldDifference): string =>
  kind === 'changed' ? `  ${what}: ${field} ${before} → ${after}` : `${kind === 'added' ? '+' : '-'} ${what}`;

/** What is otherwise in a second plan, record by record, whoever drew it. */
export const compare: Command = {
  usage: 'PLAN OTHER',
  about: 'says what is otherwise in another plan, record by record; fails where anything is',
  takes: {},
  run: ({ words: [first, second] }) => {
    const from = planIn(first);
    const to = alignedTo(from, planIn(second, 'a second plan file'));
    const differences = describeChange(from, { label: '', steps: stepsBetween(from, to) });
    return {
      code: differences.length > 0 ? 1 : 0,
      text: differences.length === 0 ? 'The two are alike.' : differences.map(differenceText).join('\n'),
      json: { differences },
    };
  },
};
