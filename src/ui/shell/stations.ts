import type { Station } from '@/core/findings';

/** The stations there are, in the order of the work, then the views over all of them. */
export interface StationEntry {
  readonly path: string;
  readonly label: string;
  readonly findings: Station | null;
  readonly about: string;
}

export const stations: readonly StationEntry[] = [
  {
    path: 'brief',
    label: 'Brief',
    findings: 'brief',
    about: 'what this site is, its address space and its habits',
  },
  {
    path: 'segments',
    label: 'Segments',
    findings: 'segments',
    about: 'one VLAN with its subnets each; the strip is this site’s address space',
  },
  {
    path: 'addresses',
    label: 'Addresses',
    findings: 'addresses',
    about: 'pools, addresses kept out of them, and fixed addresses',
  },
  {
    path: 'gear',
    label: 'Gear & ports',
    findings: 'gear',
    about: 'boxes, what each port carries, and the cables between them',
  },
  {
    path: 'wireless',
    label: 'Wireless',
    findings: 'wireless',
    about: 'networks on the air, radios and their channels, who hears whom, and where access points hang',
  },
  {
    path: 'guards',
    label: 'Guards',
    findings: 'guards',
    about: 'who is believed at which port, and whom guards would stop',
  },
  {
    path: 'internet',
    label: 'Internet side',
    findings: 'internet',
    about: 'uplinks, who translates, what gets in, and what happens when a link fails',
  },
  {
    path: 'policy',
    label: 'Who may talk',
    findings: 'policy',
    about: 'zones, what passes between them, and rules above that',
  },
  {
    path: 'rehearse',
    label: 'Rehearse',
    findings: 'rehearse',
    about: 'ask the network before it exists: questions, DHCP, failures, spanning trees',
  },
  {
    path: 'commission',
    label: 'Commission',
    findings: null,
    about: 'what to set where, in an order that cannot lock you out',
  },
  {
    path: 'handover',
    label: 'Hand over',
    findings: null,
    about: 'the schedule and the plan, to take away and to bring in',
  },
];
export const views: readonly StationEntry[] = [
  {
    path: 'findings',
    label: 'Findings',
    findings: null,
    about: 'everything that is wrong or worth knowing, with what would mend it',
  },
  {
    path: 'history',
    label: 'History',
    findings: null,
    about: 'who changed what and when; go back to any change',
  },
];
