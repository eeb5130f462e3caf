import type { Purpose } from '../../plan';

/** What has to be minded with segments of a purpose. */
export const purposeCautions: Partial<Record<Purpose, string>> = {
  'control-cell':
    'A change here can move a running machine: agree a stop with the operator. Safety functions must not depend on this network.',
  supervisory: 'Operators rely on this network: agree a stop before changing it.',
  cameras: 'Cameras and recordings touch privacy law.',
  guest: 'Running a guest network may carry legal duties.',
  voice:
    'Emergency, lift and alarm lines need power and a path when the Internet or the mains fails; test them.',
};
