import * as z from 'zod';
import { badInput, boxOf, hardeningItems, kinds, operation } from '../../plan';
import { hardeningFor, hardeningTitles, tickOf } from '../../model/guards';
import { namesOf } from '../tree/operations';

/** Ticks points of the hardening list, or takes the ticks away. */
export const tickHardening = operation(
  'tickHardening',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No box is chosen; choose at least one.').max(1000),
    items: z.array(z.enum(hardeningItems)).min(1, 'No point is chosen; choose at least one.'),
    /** Null takes the tick away. */
    done: kinds.hardening.fields.done.nullable(),
    by: kinds.hardening.fields.by,
  }),
  (draft, { devices, items, done, by }) => {
    for (const device of devices) {
      const { name } = draft.need('device', device);
      const own = hardeningFor(draft.plan, device);
      for (const item of items) {
        const tick = tickOf(draft.plan, device, item);
        if (done === null) {
          for (const one of draft.plan.hardening.group(device).values())
            if (one.item === item) draft.remove('hardening', one.id);
          continue;
        }
        if (!own.includes(item)) {
          if (devices.length > 1) continue;
          throw badInput(`“${hardeningTitles[item]}” is not for ${name}; tick what its list shows.`, 'items');
        }
        if (tick) draft.update('hardening', tick.id, { done, by });
        else draft.insert('hardening', { device, item, done, by });
        const box = boxOf(draft.plan, device);
        if (item === 'login' && box && box.loginChanged === null)
          draft.update('box', box.id, { loginChanged: done });
      }
    }
    const what = items.length === 1 ? hardeningTitles[items[0]!] : `${items.length} points`;
    return `${namesOf(draft, devices)}: ${what} ${done === null ? 'no longer done' : 'done'}`;
  },
);
