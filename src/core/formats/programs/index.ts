export { dnsmasqConf } from './dnsmasq';
export { interfacesFile } from './interfaces';
export { keaConf } from './kea';
export { hostLabels, labelOf, leasingDevices } from './leasing';
export { type ZoneFile, hostsFile, zoneFiles } from './names';
export { radvdConf } from './radvd';
