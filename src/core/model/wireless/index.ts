export {
  accessPointOf,
  accessPoints,
  bandsSent,
  joinersOf,
  countryOf,
  isForSix,
  isMeantFor,
  namesOn,
  networksAt,
  radiosOf,
  sends,
  sentBy,
  spotOf,
  ssidsOf,
} from './air';
export { beaconShare, beaconsAt, beaconsOf } from './airtime';
export { channelsOf, megahertz, plannedOf, spanOf, takenBy, widthsOf } from './channels';
export { clashesOf, foreignAt, onChannels, radiosIn, spanOfForeign, spanOfRadio } from './clashes';
export { KEEPS_SILENT, heardAt, powerOfRadio, reachOf } from './levels';
export { nearTo } from './near';
export { type BandProposal, type Setting, type Wishes, disturbance, proposeChannels } from './propose';
export { TABLE_DATE, allowedOn, countryCodes, isKnownCountry, usableChannels } from './regulatory';
export { readScan } from './scan';
export { allowedChannel, betterChannel } from './better';
export type { ChannelLoad } from './loads';
export { besidesOf, securityWords } from './words';
