import { note, oneOf, ref, whole } from './fields';
import { deviceName, kind, portsText } from './kind';
import { protocols } from './uplink';

/** A service an end device really listens on. */
export const listener = kind({
  word: 'listener',
  about: 'a service an end device really listens on',
  since: 3,
  was: { name: 'offer', until: 5 },
  table: 'listener',
  bucket: 'device',
  fields: {
    device: ref('device', 'removed', 'device'),
    protocol: oneOf('protocol', protocols),
    port: whole('port', 1, 65_535, { said: 'The port of the service' }),
    name: note('name', 40, { said: 'The service’s name' }),
  },
  title: ({ device, protocol, port }, plan) => `${deviceName(plan, device)} ${portsText(protocol, port)}`,
});
