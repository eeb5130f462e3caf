export {
  type NeedColumn,
  type NeedRow,
  needColumnsOf,
  readNeedRows,
  thingNamed,
  thingWords,
} from './brief/need-rows';
export { siblingsOf, unlikeInside } from './gear/controller-siblings';
export { insertBox } from './gear/devices';
export { hasOwnFreeAddress } from './gear/management';
export { readPortRows, typedCarried } from './gear/port-rows';
export { endIn, typedCable, typedCables } from './gear/typed-cable';
export { type ImportRow, columnsOf, readRows } from './hosts/import';
export { insertCard } from './hosts/network-interface';
export { usualAssignment } from './hosts/operations';
export { operations, perform } from './operations';
export { type OrderStep, switchOnOrder, switchedOn } from './guards/order';
export { insertRule, insertZone } from './policy/operations';
export { type Start, startFor, starts, writeStart } from './policy/start';
export { hangingOn } from './segments/operations';
export { isReservedVid, proposePool, proposePrefix, proposeSegment } from './segments/propose';
export { fittedLength } from './segments/resize';
export { asANewSite, newSiteInput, newSitePlan, siteDefaults } from './site/create';
export { fromTemplate, templateInput } from './site/template';
export { halvesOf } from './tree/balance';
export { setBridgeFields, setStpPortFields } from './tree/operations';
export { type Advice, type Visitor, adviseReach, visitors } from './uplink/advise';
export { freePlace64 } from './uplink/six';
export { plainUplink, takenBy } from './uplink/operations';
