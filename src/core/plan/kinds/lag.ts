import { flag, ref, text } from './fields';
import { deviceName, kind } from './kind';

/** Ports that act as one logical port (IEEE 802.1AX). */
export const lag = kind({
  word: 'bundle',
  about: 'a bundle of ports that act as one',
  since: 2,
  was: { name: 'aggregate', until: 5 },
  table: 'port_lag',
  bucket: 'device',
  fields: {
    device: ref('device', 'removed', 'device'),
    name: text('name', 40, { said: 'The name of the bundle' }),
    lacp: flag('LACP'),
  },
  title: ({ device, name }, plan) => `${deviceName(plan, device)} ${name}`,
});
