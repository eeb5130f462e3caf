import type { PageName } from './page';

/** How pages are called, and what boxes call the same things otherwise. */

export const pageTitles: Readonly<Record<PageName, string>> = {
  identity: 'Identity',
  management: 'Management',
  vlans: 'VLANs',
  ports: 'Ports',
  addresses: 'Addresses',
  dhcp: 'DHCP',
  routes: 'Routes',
  internet: 'Internet side',
  rules: 'Rules',
  wireless: 'Wireless',
  guards: 'Guards',
  trees: 'Spanning trees',
  time: 'Time',
  save: 'Save',
};

export const alsoCalled: Readonly<Partial<Record<PageName, string>>> = {
  vlans: 'Boxes also say 802.1Q VLAN, VLAN filtering, VLAN aware.',
  ports:
    'PVID: native VLAN, port VLAN, VLAN of untagged frames. Untagged only: access, edge. Tagged: trunk, uplink, 802.1Q member. Off: shut down, disabled. Bundle: link aggregation, LAG, team.',
  dhcp: 'Reservation: fixed lease, address binding, static mapping. Relay: helper, forwarder. Pool: range, scope.',
  routes: 'Gateway: default route, 0.0.0.0/0, next hop.',
  internet: 'Uplink: WAN. Tier: priority, metric. Pings: monitor, health check.',
  rules:
    'Rule: filter, access list, firewall policy. Forward: port mapping, destination NAT, virtual server.',
  wireless: 'Network: SSID. Keeps its clients apart: client isolation. Lowest rate: basic rate.',
  guards:
    'DHCP snooping: DHCP guard. ARP inspection: ARP guard. MAC limit: port security. Way in: 802.1X, port authentication. Storm limit: broadcast control.',
  trees: 'Edge port: fast start. BPDU guard: loop guard at the edge. Priority: bridge priority.',
  time: 'Time source: NTP server.',
};
