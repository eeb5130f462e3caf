import * as z from 'zod';
import { badInput, kinds, operation, removeRecord } from '../../plan';
import { hopOf, noHop, telephonyOf } from '../../model/guards';
import { namesOf } from '../tree/operations';

/** Says what the telephones of a segment are told; marks and priority are those of the standards until somebody changes them. */
export const addTelephony = operation(
  'addTelephony',
  z.strictObject({ vlan: z.string() }),
  (draft, { vlan: id }) => {
    const vlan = draft.need('vlan', id);
    if (telephonyOf(draft.plan, id))
      throw badInput(
        `What telephones in ${vlan.name} are told is recorded already; change it there.`,
        'vlan',
      );
    draft.insert('telephony', {
      vlan: id,
      boot: '',
      bootOption: '66',
      registrar: '',
      priority: 5,
      dscp: 46,
      signalling: 40,
    });
    return `Telephones in ${vlan.name}: what they are told is recorded`;
  },
);

export const removeTelephony = operation(
  'removeTelephony',
  z.strictObject({ id: z.string() }),
  (draft, { id }) => {
    const { vlan } = draft.need('telephony', id);
    removeRecord(draft, { table: 'telephony', id });
    return `Telephones in ${draft.need('vlan', vlan).name}: what they are told is no longer recorded`;
  },
);

const { announces, marks, queue } = kinds.voiceHop.fields;
/** Says what boxes do for voice; what nobody knows any more is dropped. */
export const setVoiceHop = operation(
  'setVoiceHop',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No box is chosen; choose at least one.').max(1000),
    set: z.strictObject({ announces, marks, queue }).partial(),
  }),
  (draft, { devices, set }) => {
    for (const device of devices) {
      const box = draft.need('device', device);
      if (draft.plan.box.by('device', device).length === 0)
        throw badInput(`${box.name} is no box; choose one with ports of its own.`, 'devices');
      const [known] = draft.plan.voiceHop.by('device', device);
      const next = { ...hopOf(draft.plan, device), ...set };
      const nothing = (['announces', 'marks', 'queue'] as const).every((name) => next[name] === noHop[name]);
      if (nothing) {
        if (known) draft.remove('voiceHop', known.id);
      } else if (known) draft.update('voiceHop', known.id, set);
      else
        draft.insert('voiceHop', {
          device,
          announces: next.announces,
          marks: next.marks,
          queue: next.queue,
        });
    }
    return `${namesOf(draft, devices)}: what it does for voice`;
  },
);
