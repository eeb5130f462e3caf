import { oneOf, ref } from './fields';
import { deviceName, kind } from './kind';

export const sayings = ['unknown', 'yes', 'no'] as const;
export const markings = ['unknown', 'kept', 'cleared'] as const;

/** What a box does for voice on its way. */
export const voiceHop = kind({
  word: 'voice at a box',
  about: 'whether a box announces the voice VLAN, keeps the marks of voice, and sends it first',
  since: 10,
  table: 'voice_hop',
  indexes: { device: ({ device }) => device },
  fields: {
    device: ref('device', 'removed', 'device'),
    announces: oneOf('announces the voice VLAN (LLDP-MED)', sayings),
    marks: oneOf('marks of voice', markings),
    queue: oneOf('sends voice first', sayings, { column: 'voice_first' }),
  },
  title: ({ device }, plan) => `voice at ${deviceName(plan, device)}`,
});
