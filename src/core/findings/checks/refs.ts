import type { Port, RecordRef } from '../../plan';

/** What findings hang on. */

export const onPort = (port: string | Pick<Port, 'id'>): RecordRef => ({
  table: 'port',
  id: typeof port === 'string' ? port : port.id,
});
export const onDevice = (id: string): RecordRef => ({ table: 'device', id });
