export { type Topology, rootPathVector, rootsOf, designatedVector } from './compute';
export { forwardingFabric, lostPorts, treesOf } from './forwarding';
export { type Grown, treeTitle } from './growing';
export { NEW_SWITCH, type Newcomer, plugInSwitch, withNewSwitch } from './new-switch';
export { formatVids, parseVids } from './ranges';
export { MASTER, Reasons, identifierText } from './reasons';
export {
  type StpPortSettings,
  bridgeRecordOf,
  factoryBridge,
  factoryStpPort,
  instanceOf,
  instancesOf,
  regionOf,
  settingsOf,
  stpPortOf,
  stpPortRecordsOf,
  vlanMapOf,
} from './settings';
export { forwards, growTrees } from './trees';
export { type Vector, compareVectors, costScales } from './vector';
