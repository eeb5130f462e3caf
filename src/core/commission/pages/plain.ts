import type { PageName } from './page';

/** The pages besides VLANs, ports and management: no order of theirs cuts anybody off. */
export const plainPages = [
  'identity',
  'addresses',
  'dhcp',
  'routes',
  'internet',
  'rules',
  'wireless',
  'guards',
  'trees',
  'time',
] as const satisfies readonly PageName[];
export type PlainPage = (typeof plainPages)[number];
