export {
  type Family,
  type IpAddress,
  addOffset,
  compareAddresses,
  familyOf,
  formatAddress,
  formatIpv4,
  parseAddress,
  parseIpv4,
  widthOf,
} from './ip';
export { isGroupMac, parseMac } from './mac';
export { type PackRequest, freeBlocks, largestOf, packPrefixes, totalSize } from './packing';
export {
  type Prefix,
  comparePrefixes,
  contains,
  covers,
  formatPrefix,
  halves,
  isBroadcast,
  lastOf,
  maskOf,
  networkOf,
  overlaps,
  parseMask,
  parseNetwork,
  parsePrefix,
  prefixFamily,
  samePlace,
  samePrefix,
  sizeOf,
  usableHosts,
  usableRange,
} from './prefix';
export { type AddressRange, countOf, endOf, inRange, rangeOf, rangesOverlap } from './range';
export { isShortAddress, parseAddressIn, shortAddress, shortRange } from './short';
export { specialBlockOf } from './special';
