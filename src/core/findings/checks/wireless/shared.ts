import type { Radio, RecordRef, Remedy, Ssid } from '../../../plan';
import type { RadioCheck, SiteCheck } from '../../finding';

/** What the checks of the air have in common. */

export const airCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'wireless',
  scope: 'site',
  find,
});

/** A check of one radio that is on: the less it looks at, the less runs again after an edit. */
export const radioCheck = (id: string, find: RadioCheck['find']): RadioCheck => ({
  id,
  station: 'wireless',
  scope: 'radio',
  find,
});

export const onSsid = ({ id }: Ssid): RecordRef => ({ table: 'ssid', id });
export const onRadio = ({ id }: Radio): RecordRef => ({ table: 'radio', id });

/** Sets fields of a network or a radio, as a person would. */
export const setting = (
  label: string,
  table: 'ssid' | 'radio',
  id: string,
  set: Readonly<Record<string, unknown>>,
): Remedy => ({ label, operation: 'edit', input: { table, id, set } });
