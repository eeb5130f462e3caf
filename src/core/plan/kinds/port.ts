import { carriedFields, carriedWithout } from './carried';
import { flag, note, oneOf, ref, whole } from './fields';
import { type Looked, deviceName, kind } from './kind';

export const portMedia = ['copper', 'fibre', 'combo', 'inner'] as const;
export const selfRoles = ['no', 'neighbour', 'mac'] as const;

/** A port as people say it: SW-A 7; the inner port by what it is; the only socket of an end device by its name. */
export function titleOfPort(
  plan: Looked,
  { device, number }: { readonly device: string; readonly number: number },
): string {
  const name = deviceName(plan, device);
  if (plan.box!.by('device', device).length === 0) return name;
  return number === 0 ? `${name} inside` : `${name} ${number}`;
}

/** A socket on a case; number 0 is the inner port, behind which the box itself lives. */
export const port = kind({
  word: 'port',
  about: 'number on the case (0 is the inside of the box), place on the face, what it carries',
  since: 2,
  table: 'port',
  bucket: 'device',
  indexes: { power: ({ poeClass }) => (poeClass === null ? null : 'asked') },
  fields: {
    device: ref('device', 'removed', 'device'),
    /** As printed on the case. */
    number: whole('number', 0, 999, { said: 'The port number', column: 'port_number' }),
    /** The number the box counts by inside; null when nobody recorded it. */
    index: whole('index inside', 0, 65_535, { column: 'port_index' }).nullable(),
    /** The name in the configuration. */
    name: note('name', 40, { said: 'The name in the configuration' }),
    /** Place on the face, from the top left. */
    row: whole('row', 0, 9, { column: 'face_row' }),
    column: whole('column', 0, 199, { column: 'face_column' }),
    media: oneOf('media', portMedia),
    speed: whole('speed', 1, 800_000, { said: 'The speed in Mbit/s', unit: 'Mbit/s' }),
    /** The highest PoE class it can power (IEEE 802.3 clause 145), or for a powered device the class it asks for. */
    poeClass: whole('PoE class', 1, 8).nullable(),
    optic: note('optic', 60),
    defective: flag('defective'),
    ...carriedFields('port_tagged'),
    setsItself: oneOf('sets its role itself', selfRoles),
    enabled: flag('enabled'),
    /** In a place where strangers can reach it. */
    exposed: flag('exposed'),
    label: note('label', 60),
    profile: ref('profile', 'cleared', 'profile').nullable(),
    lag: ref('lag', 'cleared', 'bundle', { was: { name: 'aggregate', until: 5 } }).nullable(),
  },
  title: (record, plan) => titleOfPort(plan, record),
  without: carriedWithout,
});
