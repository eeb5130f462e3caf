import { parseAddress, parseMac } from '../../address';
import { leaseIn } from '../tables/ranges';
import { type FoundFile, type LeftOut, addressTable, filled, rangeTable } from './read-file';

/** A configuration of dnsmasq, as dnsmasq(8) has it: its ranges, its reservations and its names. */

const TAGGED = /^(set|tag|net|id):/;

/** `start,end[,mask][,lease]`, with tags anywhere. */
function rangeOf(parts: readonly string[]): string[] | null {
  const addresses = parts.filter((part) => parseAddress(part) !== null);
  const [start, end] = addresses;
  const lease = parts.find(
    (part) => parseAddress(part) === null && leaseIn(part) !== null && /\d/.test(part),
  );
  if (!start || !end || end.startsWith('255.')) return null;
  return [`${start}–${end}`, parts.includes('infinite') ? '365d' : (lease ?? '')];
}

/** MAC, address, name and lease in any order; null where address or MAC is missing. */
function hostOf(parts: readonly string[], note: string): string[] | null {
  const mac = parts.find((part) => parseMac(part) !== null);
  const address = parts.find((part) => parseAddress(part.replace(/^\[|\]$/g, '')) !== null);
  const name = parts.find(
    (part) =>
      part !== mac &&
      part !== address &&
      !TAGGED.test(part) &&
      leaseIn(part) === null &&
      part !== 'infinite' &&
      part !== 'ignore',
  );
  if (!address || !mac || parts.includes('ignore')) return null;
  return [name?.split('.')[0] ?? '', address.replace(/^\[|\]$/g, ''), mac, 'reservation', note];
}

/** Names for an address: `host-record=name[,name],address`. */
function recordOf(parts: readonly string[], note: string): string[] | null {
  const [address] = parts.filter((part) => parseAddress(part) !== null);
  const [name] = parts;
  return address && name && parseAddress(name) === null
    ? [name.split('.')[0]!, address, '', 'static', note]
    : null;
}

export function readDnsmasq(text: string): FoundFile {
  const leftOut: LeftOut[] = [];
  const [ranges, hosts]: [string[][], string[][]] = [[], []];
  text.split('\n').forEach((raw, i) => {
    const said = raw.replace(/(^|\s)#.*/, '').trim();
    const note = /\s#\s*(.*)$/.exec(raw)?.[1] ?? '';
    if (said === '') return;
    const [, option = '', value = ''] = /^(?:--)?([\w-]+)\s*=\s*(.*)$/.exec(said) ?? [];
    const parts = value.split(',').map((part) => part.trim());
    const row =
      option === 'dhcp-range'
        ? rangeOf(parts)
        : option === 'dhcp-host'
          ? hostOf(parts, note)
          : option === 'host-record'
            ? recordOf(parts, note)
            : null;
    if (row === null) leftOut.push({ line: i + 1, text: said.slice(0, 120) });
    else (option === 'dhcp-range' ? ranges : hosts).push(row);
  });
  return {
    what: 'a configuration of dnsmasq',
    tables: filled([rangeTable(ranges), addressTable(hosts)]),
    leftOut,
  };
}
