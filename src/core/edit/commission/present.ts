import * as z from 'zod';
import { badInput, boxOf, kinds, operation, presentOf } from '../../plan';
import { namesOf } from '../tree/operations';

const { state, address, length, asOf } = kinds.present.fields;

/** Says how boxes are before work begins. */
export const setPresent = operation(
  'setPresent',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No box is chosen; choose at least one.').max(1000),
    set: z.strictObject({ state, address, length, asOf }).partial(),
  }),
  (draft, { devices, set }) => {
    for (const device of devices) {
      const { name } = draft.need('device', device);
      if (!boxOf(draft.plan, device)?.vlanAware)
        throw badInput(`${name} is no box that is set up; choose boxes that understand VLANs.`, 'devices');
      const [known] = draft.plan.present.by('device', device);
      if (known) draft.update('present', known.id, set);
      else draft.insert('present', { device, ...presentOf(draft.plan, device), ...set });
    }
    const how = set.state === undefined ? 'the address it comes with' : set.state.replaceAll('-', ' ');
    return `${namesOf(draft, devices)}: ${how}`;
  },
);
