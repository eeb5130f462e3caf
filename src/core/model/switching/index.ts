export { atRisk, rootCandidates } from './advice';
export { boxLinks, missingPorts, neededBeyond, partsOf, ringsOf, sparePorts } from './carry';
export { type Hop, follow, followTo, hopsTo } from './follow';
export { joinedIn } from './joined';
export { goesRound, hasLoop } from './loops';
export { type Landing, landsIn, pluggedInto, vidsAt } from './landing';
export {
  avoids,
  beginsAlike,
  changedBetween,
  fabric,
  floodFrom,
  keptFloods,
  seatsIn,
  untouched,
  vidsOf,
} from './reach';
export { isSymmetric, reverseFlood } from './reverse-flood';
export {
  type Island,
  type VlanMember,
  boxesInOrder,
  bridgeAt,
  islandsOf,
  membersOfVlan,
} from './vlan-members';
export { deafTo, hearsTag, walkTo } from './walk';
