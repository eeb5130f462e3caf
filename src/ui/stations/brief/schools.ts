/** Where practitioners disagree: each school with what it costs. Used in Brief and when a site is made. */
export interface School {
  readonly field:
    'numbering' | 'sizing' | 'fixed' | 'reservationInPool' | 'management' | 'gatewayHabit' | 'documentation';
  readonly question: string;
  readonly options: readonly { readonly value: string; readonly label: string; readonly cost: string }[];
  readonly read?: (value: string) => unknown;
  readonly whenNew: boolean;
}

const yes = (value: string) => value === 'true';

export const schools: readonly School[] = [
  {
    field: 'numbering',
    question: 'VLAN numbers',
    whenNew: true,
    options: [
      {
        value: 'third-octet',
        label: 'VLAN id in the third octet',
        cost: 'Readable at a glance; holds only for ids up to 255 and subnets up to a /24.',
      },
      {
        value: 'free',
        label: 'numbering of the customer',
        cost: 'Any id and any block; the link between the two must be looked up.',
      },
    ],
  },
  {
    field: 'sizing',
    question: 'Subnet size',
    whenNew: true,
    options: [
      {
        value: 'slash-24',
        label: 'a /24 for each',
        cost: 'Everybody can read it; spends addresses, and a large segment still needs more.',
      },
      {
        value: 'need',
        label: 'sized to need plus growth',
        cost: 'Fits many segments into little space; masks differ and must be typed right.',
      },
    ],
  },
  {
    field: 'fixed',
    question: 'Fixed addresses',
    whenNew: true,
    options: [
      {
        value: 'outside-pool',
        label: 'outside the pool, set on the device',
        cost: 'Works with the DHCP server down; every device is configured by hand.',
      },
      {
        value: 'reservation',
        label: 'reservations by MAC',
        cost: 'All in one place; a replaced network card needs the new MAC entered.',
      },
    ],
  },
  {
    field: 'reservationInPool',
    question: 'Reservation inside the pool',
    whenNew: false,
    read: yes,
    options: [
      {
        value: 'true',
        label: 'the server allows it',
        cost: 'A reserved address inside the pool is not leased to others.',
      },
      {
        value: 'false',
        label: 'the server refuses it',
        cost: 'Reservations must lie outside the pool; inside is a finding.',
      },
    ],
  },
  {
    field: 'management',
    question: 'Management',
    whenNew: true,
    options: [
      {
        value: 'own-segment',
        label: 'a segment of its own',
        cost: 'Recommended, with VLAN 1 unused: users cannot reach the boxes.',
      },
      {
        value: 'default-vlan',
        label: 'the default VLAN',
        cost: 'Nothing to configure; any unconfigured port reaches the boxes.',
      },
    ],
  },
  {
    field: 'gatewayHabit',
    question: 'Gateway address',
    whenNew: false,
    options: [
      { value: 'first', label: 'first host of the subnet', cost: 'The usual habit: .1 in a /24.' },
      {
        value: 'last',
        label: 'last host of the subnet',
        cost: 'Leaves the low numbers to devices: .254 in a /24.',
      },
    ],
  },
  {
    field: 'documentation',
    question: 'Example site',
    whenNew: false,
    read: yes,
    options: [
      { value: 'false', label: 'no, a real one', cost: 'Documentation ranges inside are a stop.' },
      {
        value: 'true',
        label: 'yes, documentation ranges allowed',
        cost: 'For teaching; RFC 5737 and RFC 3849 addresses are allowed inside.',
      },
    ],
  },
];
