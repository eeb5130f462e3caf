import { formatAddress } from '../../address';
import { address, note, ref } from './fields';
import { kind } from './kind';
import { ordered, outsideItsSubnet } from './ranges';

/** Addresses kept out of the pools. */
export const exclusion = kind({
  word: 'exclusion',
  about: 'addresses kept out of the pools, and why',
  since: 1,
  table: 'exclusion',
  bucket: 'subnet',
  fields: {
    subnet: ref('subnet', 'removed', 'subnet'),
    start: address('start'),
    end: address('end'),
    why: note('why', 120, { said: 'The reason' }),
  },
  rules: [ordered],
  refused: outsideItsSubnet,
  title: ({ start, end }) => `exclusion ${formatAddress(start)}–${formatAddress(end)}`,
});
