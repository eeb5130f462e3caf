import { parseAddress } from '../../address';
import { type FoundFile, type LeftOut, addressTable, filled } from './read-file';

/** A hosts file as hosts(5) has it: an address, its name, other names. */

/** Of the machine itself, and of everybody: no device of a plan. */
const OWN = /^(127\.|::1$|0\.0\.0\.0$|255\.|fe80:|ff0)/i;

export function readHosts(text: string): FoundFile {
  const leftOut: LeftOut[] = [];
  const rows = text.split('\n').flatMap((raw, i) => {
    const [said = '', note = ''] = raw.split('#').map((part) => part.trim());
    if (said === '') return [];
    const [address = '', name = '', ...others] = said.split(/\s+/);
    if (parseAddress(address) === null || name === '' || OWN.test(address)) {
      leftOut.push({ line: i + 1, text: said });
      return [];
    }
    // The plan names a device once; the domain comes from its segment.
    const short = [name, ...others].find((one) => !one.includes('.')) ?? name.split('.')[0]!;
    return [[short, address, '', '', note]];
  });
  return { what: 'a hosts file', tables: filled([addressTable(rows)]), leftOut };
}
