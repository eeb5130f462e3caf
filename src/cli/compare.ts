import { compared } from '../core/plan';
import type { Command } from './command';
import { planIn } from './files';

/** What is otherwise in a second plan, record by record, whoever drew it. */
export const compare: Command = {
  usage: 'PLAN OTHER',
  about: 'says what is otherwise in another plan, record by record; fails where anything is',
  takes: {},
  run: ({ words: [first, second] }) => {
    const from = planIn(first);
    const kinds = compared(from, planIn(second, 'a second plan file'));
    const lines = kinds.flatMap(({ word, added, removed, changed }) => [
      ...removed.map((what) => `- ${word} ${what}`),
      ...added.map((what) => `+ ${word} ${what}`),
      ...changed.map(({ what, field, before, after }) => `  ${word} ${what}: ${field} ${before} → ${after}`),
    ]);
    return {
      code: lines.length > 0 ? 1 : 0,
      text: lines.length === 0 ? 'The two are alike.' : lines.join('\n'),
      json: { kinds },
    };
  },
};
