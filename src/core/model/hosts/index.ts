export { hostNames, isDomain, nameMessage, nameProblem, proposeHostName, repairName } from './names';
export { nextFreeAddress } from './next-free';
export { segmentsOf } from './segments-of';
export { ownSettings } from './own-settings';
export { interfaceNamed, interfacesNamed, namesOfInterfaces } from './named';
