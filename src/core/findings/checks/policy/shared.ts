import type { TableName } from '../../../plan/records';
import type { SiteCheck } from '../../finding';

const POLICY: readonly TableName[] = [
  'bridge',
  'instance',
  'treePort',
  'zone',
  'cell',
  'rule',
  'service',
  'vlan',
  'uplink',
  'tunnel',
  'subnet',
  'address',
  'interface',
  'device',
  'box',
];

export const policyCheck = (id: string, find: SiteCheck['find']): SiteCheck => ({
  id,
  station: 'policy',
  scope: 'site',
  reads: POLICY,
  find,
});
