import type { Box, Port } from '../../plan';
import { undecided } from './roles';

/** What is kept about a box, before anybody wrote it down. */
export const blankBox = {
  location: '',
  mounting: '',
  assetTag: '',
  serial: '',
  revision: '',
  baseMac: null,
  firmware: '',
  supportedUntil: null,
  licence: '',
  licenceUntil: null,
  loginChanged: null,
  loginKept: '',
  controller: null,
} as const satisfies Partial<Box>;

/** A copper port as it comes, undecided; number 1 is the socket of an end device. */
export const blankPort: Omit<Port, 'id' | 'device'> = {
  ...undecided,
  number: 1,
  index: null,
  name: '',
  row: 0,
  column: 0,
  media: 'copper',
  speed: 1000,
  poeClass: null,
  optic: '',
  defective: false,
  setsItself: 'no',
  enabled: true,
  exposed: false,
  label: '',
  profile: null,
  lag: null,
};
