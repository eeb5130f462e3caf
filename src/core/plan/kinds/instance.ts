import { code, ref, whole } from './fields';
import { deviceName, kind } from './kind';

/** VLAN ids as ranges: 10-20,99. Rising, without overlaps, as short as can be. */
const rangesText = /^$|^\d{1,4}(-\d{1,4})?(,\d{1,4}(-\d{1,4})?)*$/;

/** A tree of its own at a box: an MST instance with its VLANs, or in RSTP per VLAN that of one VLAN. */
export const instance = kind({
  word: 'instance',
  about: 'a tree of its own at a box: an MST instance with its VLAN ids, or the tree of one VLAN',
  since: 5,
  table: 'tree_instance',
  bucket: 'device',
  fields: {
    device: ref('device', 'removed', 'device'),
    /** The instance’s number, or the VLAN id. */
    number: whole('number', 1, 4094, { said: 'The instance', column: 'instance_number' }),
    vids: code('VLAN ids', 20_000, rangesText, '10-20,99', 'VLAN ids need the form 10-20,99'),
    priority: whole('priority', 0, 65_535, { said: 'The bridge priority' }),
  },
  title: ({ number, device }, plan) => `instance ${number} of ${deviceName(plan, device)}`,
});
