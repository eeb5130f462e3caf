export {
  type PortGuards,
  actingPort,
  type VlanGuards,
  anyGuards,
  boundAt,
  factoryPortGuards,
  guardsOf,
  macOf,
  noVlanGuards,
  portGuardOf,
  portGuardsOf,
  vlanGuardOf,
} from './records';
