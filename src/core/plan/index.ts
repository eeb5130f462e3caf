export { withOtherIds } from './aligned';
export { stepsBetween } from './between';
export { type ComparedKind, compared } from './compared';
export { boxOf } from './box-of';
export {
  type Change,
  type Step,
  applyChange,
  applySteps,
  fittedLabel,
  invertSteps,
  netSteps,
} from './change';
export { addressCodec, authorSchema, idSchema, macCodec, prefixCodec, wellFormed } from './codecs';
export { Collection, type Group, hashOf } from './collection';
export { derive, deriveBy, despite } from './derive';
export { digestOf } from './digest';
export { type FieldDifference, describeChange } from './describe';
export { Draft } from './draft';
export { edit } from './edit';
export { schemaOf, toWire } from './record-wire';
export { equal } from './equal';
export { overtaken } from './meanwhile';
export { type Carried, acceptedFrames, access, nothingCarried, undecided, vlansIn } from './kinds/carried';
export { whole } from './kinds/fields';
export { type NamedField, fieldsOf } from './kinds/kind';
export { outsideOf } from './kinds/ranges';
export { notForwarded } from './kinds/forward';
export { settingOfOtherFamily } from './kinds/interface';
export { notRouted } from './kinds/route';
export { lastNumber } from './kinds/service';
export { notOneToOne } from './kinds/translation';
export { type Schema, isNullable, itemsOf, shapeOf } from './kinds/shape';
export { listsSchema, planOfLists } from './lists';
export { groupBy, memo } from './memo';
export {
  type Call,
  type Given,
  type Operation,
  type OperationInputs,
  type Remedy,
  type WireCall,
  operation,
  runOperation,
} from './operation';
export { type WrongInput, decoded, shownValue } from './plain-issue';
export { type Plan, planOf, recordIn, siteOf, withRecord, withRecords } from './plan';
export { inRank, putBehind, rankBetween } from './ranks';
export {
  type Acceptance,
  type Access,
  type Binding,
  type Hardening,
  type HardeningItem,
  hardeningItems,
  presentStates,
  type BoxModel,
  consoleSockets,
  waysIn,
  type Identity,
  type Telephony,
  type VoiceHop,
  type RadiusServer,
  accessMethods,
  accessModes,
  hostModes,
  identities,
  type PortGuard,
  type VlanGuard,
  overLimit,
  type Address,
  type AnyRecord,
  type Band,
  type Box,
  type BridgeRecord,
  type Cable,
  type Cell,
  type Device,
  type DeviceKind,
  type Exclusion,
  type Forward,
  type Instance,
  type Interface,
  type Lag,
  type ForeignSsid,
  type Level,
  type Line,
  type Listener,
  type Need,
  type Place,
  type Stock,
  type Wish,
  type Radio,
  type Spot,
  type Ssid,
  type Wall,
  type Party,
  type Pool,
  type Present,
  type Port,
  type Purpose,
  type Question,
  type RecordOf,
  type Route,
  type Rule,
  SITE_ID,
  type Security,
  type Service,
  type Site,
  type Subnet,
  type TableName,
  type Transient,
  type Translation,
  type StpPort,
  type Tunnel,
  type Uplink,
  type Vlan,
  type VoiceBox,
  type Width,
  type Zone,
  NAME_OCTETS,
  TOO_LONG,
  addressings,
  bands,
  cableMedia,
  cableSides,
  controlFrames,
  deviceKinds,
  expectations,
  filters,
  guards,
  kinds,
  links,
  matchSchema,
  minimumRates,
  octetsOf,
  outsides,
  partySchema,
  passings,
  placeSorts,
  portMedia,
  powers,
  protocols,
  purposes,
  securities,
  selfRoles,
  siteKinds,
  spanningTrees,
  stockSorts,
  tableNames,
  taggedModes,
  things,
  upstreams,
  widths,
  wishDecisions,
  wishEnds,
} from './records';
export { referencedIds, references } from './references';
export { type RecordRef, Refusal, badInput } from './refusal';
export { pick } from './pick';
export { modelNamed, modelOf, presentOf } from './present-of';
export { removalOf, removeRecord, removeRecords } from './remove';
export { acceptProposal, bringInRows, takeSteps, withStepsTaken } from './revert';
export {
  type PlainVlan,
  addressesOf,
  addressesOn,
  devicesNamed,
  dnsOf,
  domainOf,
  gatewaysOf,
  hostOf,
  interfaceAddress,
  interfacesOf,
  interfacesWithMac,
  plainVlansOf,
  routersOf,
  subnetOf,
  subnetsOf,
  vlansOf,
} from './view';
export { standardService, standardServices } from './standard-services';
export { type WireStep, decodePlan, decodeStep, encodePlan, encodeStep, wireStepSchema } from './wire';
export { byName, fieldName, fieldText, portTitle, portsText, recordTitle, wireText } from './words';
export { namedSo, requireOwnName } from './unique';
export { type Progress, type Work, counted, finish } from './work';
