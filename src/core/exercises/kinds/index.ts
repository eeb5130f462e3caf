import type { FaultKind } from '../kind';
import { addressKinds } from './addresses';
import { airKinds } from './air';
import { cableKinds } from './cables';
import { internetKinds } from './internet';
import { leaseKinds } from './leases';
import { policyKinds } from './policy';
import { portKinds } from './ports';
import { treeKinds } from './trees';

/** Every kind of fault there is to find. */
export const kinds: readonly FaultKind[] = [
  ...cableKinds,
  ...portKinds,
  ...treeKinds,
  ...addressKinds,
  ...leaseKinds,
  ...internetKinds,
  ...policyKinds,
  ...airKinds,
];
