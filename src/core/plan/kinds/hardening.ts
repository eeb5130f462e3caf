import { day, oneOf, ref, text } from './fields';
import { deviceName, kind } from './kind';

/** What is done to a box before it is left alone, in the order in which it is done. */
export const hardeningItems = [
  'name',
  'login',
  'services',
  'sessions',
  'secrets',
  'reach',
  'time',
  'management',
  'firmware',
  'saved',
] as const;

export const hardening = kind({
  word: 'hardening tick',
  about: 'what was done to harden a box, on which day and by whom',
  since: 10,
  table: 'hardening',
  bucket: 'device',
  fields: {
    device: ref('device', 'removed', 'device'),
    item: oneOf('point', hardeningItems),
    done: day('done on'),
    by: text('done by', 80, { column: 'done_by' }),
  },
  title: ({ device, item }, plan) => `${item} of ${deviceName(plan, device)}`,
});
