import * as z from 'zod';
import { type BoxModel, kinds, operation, removeRecord, requireOwnName } from '../../plan';

/** What is known of models: how one gets into their boxes. */

/** Of a model of which nobody said anything: any port answers, nothing else is known. */
const UNSAID: Omit<BoxModel, 'id' | 'name'> = {
  way: 'any-port',
  port: null,
  address: null,
  length: 24,
  console: 'none',
  consoleSpeed: null,
  starts: null,
  page: null,
  reset: '',
  light: '',
  quirks: '',
};

/** Begins to say how one gets into boxes of a model. */
export const addModel = operation(
  'addModel',
  z.strictObject({ name: kinds.model.fields.name }),
  (draft, { name }) => {
    requireOwnName(draft.plan, 'model', name);
    draft.insert('model', { name, ...UNSAID });
    return `Model ${name}`;
  },
);

/** Forgets what is known of a model; its boxes stay as they are. */
export const removeModel = operation(
  'removeModel',
  z.strictObject({ model: z.string() }),
  (draft, { model }) => {
    const { name } = draft.need('model', model);
    removeRecord(draft, { table: 'model', id: model });
    return `What was known of model ${name} removed`;
  },
);
