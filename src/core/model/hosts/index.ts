export { hostNames, isDomain, nameMessage, nameProblem, proposeHostName, repairName } from './names';
export { nextFreeAddress } from './next-free';
export { segmentsOf } from './segments-of';
export { ownSettings } from './own-settings';
export { dnsText, typedDns } from './dns';
export {
  deviceMeant,
  deviceTyped,
  devicesMeant,
  domainsOf,
  interfaceNamed,
  interfacesNamed,
  namesOfInterfaces,
} from './named';
