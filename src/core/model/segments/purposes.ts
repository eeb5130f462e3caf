import type { DeviceKind, Purpose } from '../../plan';

/** What a new segment of a purpose starts with. Keys choose the purpose when a segment is added. */
export interface PurposeDefaults {
  readonly label: string;
  readonly key: string;
  readonly code: string;
  readonly colour: string;
  readonly internet: boolean;
  readonly devices: number;
  readonly pool: boolean;
  readonly hosts: DeviceKind;
}

export const purposeDefaults: Readonly<Record<Purpose, PurposeDefaults>> = {
  management: {
    label: 'Management',
    key: 'm',
    code: 'MG',
    colour: '#5b6770',
    internet: false,
    devices: 6,
    pool: false,
    hosts: 'switch',
  },
  staff: {
    label: 'Staff',
    key: 's',
    code: 'ST',
    colour: '#067a74',
    internet: true,
    devices: 20,
    pool: true,
    hosts: 'computer',
  },
  guest: {
    label: 'Guests',
    key: 'g',
    code: 'GU',
    colour: '#3a93cf',
    internet: true,
    devices: 20,
    pool: true,
    hosts: 'computer',
  },
  iot: {
    label: 'Things',
    key: 'i',
    code: 'IO',
    colour: '#8a6d1d',
    internet: true,
    devices: 10,
    pool: true,
    hosts: 'appliance',
  },
  cameras: {
    label: 'Cameras',
    key: 'c',
    code: 'CM',
    colour: '#e2a21b',
    internet: false,
    devices: 6,
    pool: false,
    hosts: 'camera',
  },
  voice: {
    label: 'Voice',
    key: 'v',
    code: 'VO',
    colour: '#6c4bbd',
    internet: true,
    devices: 8,
    pool: true,
    hosts: 'phone',
  },
  servers: {
    label: 'Servers',
    key: 'r',
    code: 'SV',
    colour: '#1f3a68',
    internet: true,
    devices: 4,
    pool: false,
    hosts: 'server',
  },
  'control-cell': {
    label: 'Control cell',
    key: 'l',
    code: 'CC',
    colour: '#be3a35',
    internet: false,
    devices: 10,
    pool: false,
    hosts: 'controller',
  },
  supervisory: {
    label: 'Supervisory',
    key: 'u',
    code: 'SU',
    colour: '#8c2f6b',
    internet: false,
    devices: 4,
    pool: false,
    hosts: 'server',
  },
  building: {
    label: 'Building services',
    key: 'b',
    code: 'BL',
    colour: '#7a4a24',
    internet: false,
    devices: 8,
    pool: true,
    hosts: 'sensor',
  },
  exchange: {
    label: 'Exchange',
    key: 'x',
    code: 'HX',
    colour: '#173f5f',
    internet: false,
    devices: 3,
    pool: false,
    hosts: 'server',
  },
  transit: {
    label: 'Transit',
    key: 't',
    code: 'TR',
    colour: '#4d5d53',
    internet: true,
    devices: 1,
    pool: false,
    hosts: 'gateway',
  },
  parking: {
    label: 'Parked ports',
    key: 'p',
    code: 'PK',
    colour: '#8b938c',
    internet: false,
    devices: 0,
    pool: false,
    hosts: 'other',
  },
};

/** Jacket colours to take when the purpose's own is in use already. */
export const spareColours = [
  '#2d7d3a',
  '#a8501c',
  '#d0679d',
  '#2f5fb3',
  '#94a11a',
  '#5a3d8f',
  '#b98a5a',
  '#008b9a',
  '#c2185b',
  '#546e1f',
  '#7d2e2e',
  '#43667f',
];
