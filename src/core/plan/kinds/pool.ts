import { formatAddress } from '../../address';
import { address, ref, refs, whole } from './fields';
import { kind } from './kind';
import { ordered, outsideItsSubnet } from './ranges';

/** Addresses that servers lease. */
export const pool = kind({
  word: 'pool',
  about: 'first and last address, both included; lease in seconds; serving interfaces',
  since: 1,
  table: 'pool',
  bucket: 'subnet',
  fields: {
    subnet: ref('subnet', 'removed', 'subnet'),
    start: address('start'),
    end: address('end'),
    /** Lease time (RFC 2131 section 3.3). */
    lease: whole('lease (s)', 60, 31_536_000, { said: 'The lease time in seconds', unit: 's' }),
    /** Interfaces of the servers; more than one for a failover or split pair. */
    servedBy: refs('interface', 'dropped', 'served by', 'pool_server', { edited: true }),
  },
  rules: [ordered],
  refused: outsideItsSubnet,
  title: ({ start, end }) => `pool ${formatAddress(start)}–${formatAddress(end)}`,
});
