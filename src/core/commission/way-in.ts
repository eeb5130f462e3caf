import { formatAddress } from '../address';
import { type BoxModel, type Plan, modelOf, presentOf } from '../plan';

/** How one gets into a box as it comes, in words. */

export const wayWords: Readonly<Record<BoxModel['way'], string>> = {
  'any-port': 'its address answers at any port',
  'one-port': 'its address answers at one port until the first restart',
  'link-local': 'gives itself an address, 169.254.0.0/16',
  console: 'by console only',
};
export const consoleWords: Readonly<Record<BoxModel['console'], string>> = {
  none: 'none',
  rj45: 'RJ45',
  usb: 'USB',
  serial: 'nine-pin serial',
};

const consoleText = ({ console, consoleSpeed }: BoxModel): string =>
  console === 'none'
    ? ''
    : `console ${consoleWords[console]}${consoleSpeed === null ? '' : `, ${consoleSpeed} bit/s`}`;

/** That any port answers goes without saying. */
const wayInShort = ({ way, port }: BoxModel): string =>
  way === 'any-port'
    ? ''
    : way === 'one-port' && port !== null
      ? `answers at port ${port} until the first restart`
      : wayWords[way];

/** What is known of a model in one line; that nothing is, where nothing is. */
export function modelInShort(model: BoxModel): string {
  const { way, address, length, starts, reset, quirks } = model;
  const said = [
    wayInShort(model),
    address === null || way === 'link-local' ? '' : `${formatAddress(address)}/${length}`,
    consoleText(model),
    starts === null ? '' : `starts in ${starts} s`,
    reset === '' ? '' : `reset: ${reset}`,
    quirks === '' ? '' : 'has quirks',
  ]
    .filter(Boolean)
    .join('; ');
  return said || 'nothing said yet';
}

/** A thing to know before one sits down in front of a box. */
export interface WayIn {
  readonly what: string;
  readonly value: string;
}
/** What is known of getting into a box: nothing where nobody said anything of its model. */
export function wayInto(plan: Plan, device: string): WayIn[] {
  const model = modelOf(plan, device);
  if (!model) return [];
  const { way, port, starts, reset, light, quirks } = model;
  const isNew = presentOf(plan, device).state === 'as-it-comes';
  const lines: readonly WayIn[] = [
    { what: 'As it comes', value: isNew ? wayWords[way] : '' },
    { what: 'Begin at', value: isNew && port !== null ? `port ${port}` : '' },
    { what: 'Console', value: consoleText(model).replace('console ', '') },
    { what: 'Starts in', value: starts === null ? '' : `${starts} s` },
    { what: 'Reset', value: reset },
    { what: 'Its light', value: light },
    { what: 'Quirks', value: quirks },
  ];
  return lines.filter(({ value }) => value !== '');
}
