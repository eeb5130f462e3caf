import * as z from 'zod';
import { planFileSchema } from './plan-file';

/** The JSON Schema of a plan file, made from the very schemas that read it: the text side of every codec. */
export const planFileJsonSchema = (): object => ({
  title: 'Dianome plan file',
  ...z.toJSONSchema(planFileSchema, { io: 'input', unrepresentable: 'any' }),
});
