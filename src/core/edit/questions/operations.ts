import * as z from 'zod';
import { badInput, operation, putBehind, rankBetween, kinds } from '../../plan';
import { questionText, questionsOf } from '../../rehearse';

/** Questions kept with the answer that is expected: the acceptance list of a site. */

export const addQuestion = operation(
  'addQuestion',
  z.strictObject(kinds.question.fields).omit({ rank: true }),
  (draft, fields) => {
    for (const port of [fields.fromPort]) if (port !== null) draft.need('port', port);
    for (const device of [fields.fromDevice, fields.toDevice])
      if (device !== null) draft.need('device', device);
    for (const vlan of [fields.fromVlan, fields.toVlan]) if (vlan !== null) draft.need('vlan', vlan);
    if (fields.fromSsid !== null) {
      draft.need('ssid', fields.fromSsid);
      if (fields.fromDevice === null)
        throw badInput('Name the access point at which the network is joined, like Guests at ap-1.', 'from');
    }
    if (fields.fromTunnel !== null) draft.need('tunnel', fields.fromTunnel);
    const rank = rankBetween(questionsOf(draft.plan).at(-1)?.rank ?? null, null);
    const question = draft.insert('question', { rank, ...fields });
    return `Question kept: ${questionText(draft.plan, question)}`;
  },
);

export const removeQuestion = operation(
  'removeQuestion',
  z.strictObject({ question: z.string() }),
  (draft, input) => {
    const question = draft.need('question', input.question);
    draft.remove('question', question.id);
    return `Question dropped: ${questionText(draft.plan, question)}`;
  },
);

/** Moves a question to behind another; to the top with null. */
export const moveQuestion = operation(
  'moveQuestion',
  z.strictObject({ question: z.string(), after: z.string().nullable() }),
  (draft, { question: id, after }) => {
    const question = draft.need('question', id);
    putBehind(draft, 'question', questionsOf(draft.plan), id, after);
    return `Question moved: ${questionText(draft.plan, question)}`;
  },
);
