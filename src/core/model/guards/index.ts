export { hardenable, hardeningFor, hardeningTitles, tickOf } from './hardening';
export {
  type Asking,
  type KnownBy,
  accessAt,
  accessesOf,
  askingPorts,
  boxesAsking,
  knownBy,
  radiusOf,
  serversFor,
} from './access';
export {
  type PluggedPhone,
  type Target,
  hopOf,
  noHop,
  pluggedPhones,
  targetOf,
  telephoniesOf,
  telephonyOf,
} from './telephones';
export {
  type PortGuards,
  actingPort,
  type Trust,
  type VlanGuards,
  anyGuards,
  boundAt,
  factoryPortGuards,
  guardsOf,
  macOf,
  hangsOnBindings,
  noVlanGuards,
  portGuardOf,
  portGuardsOf,
  trustOf,
  vlanGuardOf,
} from './records';
export { accessWords, guardWords, hostWords, methodWords } from './words';
