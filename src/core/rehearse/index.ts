export { cascadesOf } from './cascade';
export { classesOf, homeOf } from './classes';
export type { PacketStep } from './conversation';
export { discover } from './dhcp';
export { type Air, type Entry, airTitle, hasRadius } from './entry';
export type { Hearing } from './lease-offers';
export {
  type Authentication,
  type Circumstances,
  DHCP_PATIENCE,
  authenticate,
  hasMac,
  homeVlanOf,
} from './guards/authenticate';
export {
  type BoxWay,
  type ServerWay,
  pingPasses,
  serverWays,
  waysToServers,
  wrongPort,
} from './guards/server-ways';
export { type HardeningPoint, hardeningOf, hardeningPoint } from './guards/hardening';
export { type Telephone, telephoneAt, voiceThrough } from './guards/telephone';
export { type VoiceSwitch, voiceSwitchAt } from './guards/voice-switch';
export { unasked, unaskedAt } from './guards/unasked';
export { type CutOff, type GuardedPort, cutOffBy, guardLine } from './guards/line';
export { behind, bringsVlan, expectedMacs, isEdge, treeGuardsFor } from './guards/behind';
export { type Guarded, type Sight, leasesSix, sightsIn, stoppedIn, vlanIsAt } from './guards/sights';
export { neededNow, wantedTrust } from './guards/trust';
export { helpfulRemedies } from './opening-helps';
export { plugIn } from './plug-in';
export { type Difference, differencesIn, looseWires } from './differences';
export { socketPort } from './frames';
export { type Fault, endsOfCable, faultKey, faultOn, faultTitle, singleFaultsOf, withFaults } from './faults';
export { farAddress, firstFree, newcomerAddress, outsideAddress, outsideHost } from './host';
export { type Answer, probe } from './probe';
export { type ProbeQuestion, type Receiver, nameOfReceiver } from './question';
export { type QuestionEnds, questionEnds } from './question-ends';
export type { Host } from './host';
export { placeOf } from './frames';
export {
  type Asking,
  askAll,
  askedBy,
  questionFields,
  questionText,
  questionsOf,
  senderTitle,
} from './questions/ask';
export { carryRemedy, joinRemedy, subnetSettings } from './remedies';
export { type Ranked, singleFaults } from './single-faults';
export { faultNames, typedFault } from './typed-fault';
export {
  suggestedEnds,
  suggestedServices,
  typedBoxPort,
  typedEntry,
  typedReceiver,
  typedSender,
  typedWanted,
} from './typed';
export { type Impact, outOfTouch, whatIf } from './what-if';
export { type Pair, pairOf, wholeMatrix, zonesSpokenOf } from './whole-matrix';
