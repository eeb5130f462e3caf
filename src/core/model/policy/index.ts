export { type PlainRule, analyse, ruleHolds, plainRulesOf, rulesOf } from './analyse';
export { RangeIndex } from './range-index';
export {
  type TrafficRange,
  type Span,
  anyMeet,
  cut,
  rangesMeet,
  gaps,
  subtract,
  rangeWithout,
} from './traffic-range';
export {
  type PacketSide,
  type Verdict,
  type Wanted,
  cellVerdict,
  decide,
  includesService,
  ruleFor,
  vlanOfAddress,
  wantedText,
} from './decide';
export { type Filter, enforcement, filterOf } from './enforce';
export { explainZone } from './explain';
export { type ListLine, portListOf } from './port-list';
export { forwardText, forwardsInto } from './openings';
export { allServices, matchText, serviceNames, serviceOf, typedMatches } from './services';
export {
  EVERYTHING,
  PORTS,
  PROTOCOLS,
  V6_FIRST,
  boxesOf,
  boxesOfRule,
  onLine,
  serviceAt,
  servicesSpans,
  spanOf,
  spansOf,
  spansOfZone,
  tunnelSpans,
  vlanSpans,
} from './traffic';
export { sideOfAddress, spansAt } from './side';
export { partiesLine, partyTyped, requireWritten, typedParties, typedServices } from './typed';
export { partiesText, ruleText } from './words';
export {
  type Passing,
  cellOf,
  isOutside,
  ownMembers,
  passing,
  passingOfPairs,
  vlansOfZone,
  zoneOfVlan,
  zonesOf,
} from './zones';
