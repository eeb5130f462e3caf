export { blankBox, blankPort } from './blank';
export { endsAt, homesOf } from './ends';
export {
  type Bridge,
  type Came,
  type Fabric,
  type Flood,
  type Heard,
  type Origin,
  type Seat,
  type State,
  bridgeOf,
  enters,
  fabricOf,
  wiredFabric,
  flood,
  inwardPorts,
  leaves,
  stateKey,
  vidsById,
} from './fabric';
export {
  DEFAULT_VID,
  EVERY,
  type PortFacts,
  type Tag,
  VidSet,
  blocks,
  egress,
  ingress,
  isEvery,
  isMember,
  portFacts,
  sameSet,
  tagOf,
} from './facts';
export { freePorts } from './free';
export { classAsked, powerOf, reservedFor, usualPoeClass } from './power';
export { describePorts, fillPattern, portsIn, portsTitle, rangeText } from './ranges';
export {
  type Carried,
  access,
  accessWithVoice,
  sameCarried,
  adding,
  carriedOf,
  carries,
  dropping,
  isOpen,
  parked,
  trunk,
  undecided,
  uplinkRole,
  vlansIn,
} from './roles';
export { type Model, type PortBlock, modelById, numberings, placesOf, shelf } from './device-models';
export { taggedText, typedTagged, typedVlan } from './typed-vlans';
export {
  type CableEnd,
  type Link,
  type WiredPort,
  cablesAt,
  innerPort,
  isPassive,
  linksAt,
  linksOf,
  portsOf,
  wiredPort,
  wiredPorts,
} from './wiring';
export { cableEndText, carriedText, scheduledText, leadsTo, portLabel, roleWords } from './words';
