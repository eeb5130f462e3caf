import type { Need } from '../../plan';

/** What each kind of thing is called. */
export const thingWords: Readonly<Record<Need['thing'], string>> = {
  workstation: 'workstations',
  laptop: 'laptops',
  telephone: 'telephones',
  guest: 'guests’ devices',
  printer: 'printers',
  screen: 'screens',
  appliance: 'appliances',
  server: 'servers',
  camera: 'cameras',
  recorder: 'recorders',
  sensor: 'building sensors',
  controller: 'machine controllers',
  'safety-controller': 'safety controllers',
  'operator-panel': 'operator panels',
  drive: 'drives',
  'control-room': 'control room computers',
  'exchange-server': 'exchange servers',
  scanner: 'hand scanners',
};
