export { INK, WHITE, contrast, luminance, textOn } from './colour';
export { purposeCautions } from './cautions';
export {
  type AddressUse,
  type Layout,
  type Run,
  addressUses,
  clip,
  layoutOf,
  layoutOfSubnet,
  leaseCapacity,
} from './layout';
export {
  DEFAULT_LEASE,
  type Sum,
  arrivalsWithin,
  grown,
  poolNeed,
  prefixLengthFor,
  proposeLease,
  subnetNeed,
  transientNeed,
  usualLeases,
} from './need';
export { purposeDefaults, spareColours } from './purposes';
export {
  bandsOf,
  foreignNetworks,
  freeSpace,
  habitualGateway,
  isFlat,
  isFree,
  isUntaken,
  takenPrefixes,
  thirdOctetPlaces,
  usableSpace,
  vlanIdPlace64,
} from './space';
export { leaseOf, needOf } from './subnet-need';
export { vlanMeant } from './named';
