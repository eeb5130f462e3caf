import { formatPrefix, parseAddress, parsePrefix } from '../address';
import { onLine, spanOf } from '../model/policy';
import { subnetOf, vlansOf } from '../plan';
import { vlanFor } from '../testing/gear';
import { soundPolicy } from '../testing/policy';
import { filterRules, octetsOf, prefixesIn } from './filter-rules';

const TODAY = '2026-05-04';
const plan = soundPolicy();

/** An IPFilterRule (RFC 6733 section 4.3.1), as far as it is used here. */
const RULE =
  /^(permit|deny) in (ip|tcp|udp|icmp|\d+) from (any|[\da-f.:]+\/\d+)( [\d,-]+)? to (any|[\da-f.:]+\/\d+)( [\d,-]+)?( established| icmptypes [\d,-]+)?$/;

test('every line of every segment is a rule, and stands once', () => {
  for (const { id } of vlansOf(plan)) {
    const lines = filterRules(plan, id, TODAY);
    expect(lines.length).toBeGreaterThan(0);
    for (const line of lines) expect(line).toMatch(RULE);
    expect(new Set(lines).size).toBe(lines.length);
  }
});

test('staff may print and go out; a printer may answer and begin nothing', () => {
  const staff = filterRules(plan, vlanFor(plan, 'staff').id, TODAY);
  expect(staff).toEqual(
    expect.arrayContaining([
      'permit in udp from any to 10.20.10.1/32 53,67-68,123',
      'permit in icmp from any to 10.20.10.1/32 icmptypes 8',
      'permit in tcp from any to 10.20.20.0/24 80,443,515,631,9100',
      'deny in ip from any to 10.20.20.0/24',
    ]),
  );
  expect(staff.at(-1)).toBe('permit in ip from any to any');
  const printers = filterRules(plan, vlansOf(plan).find(({ vid }) => vid === 20)!.id, TODAY);
  const desks = formatPrefix(subnetOf(plan, vlanFor(plan, 'staff').id, 4)!.prefix);
  expect(printers.filter((line) => line.startsWith('permit') && line.includes(`to ${desks}`))).toEqual([
    `permit in tcp from any 80,443,515,631,9100 to ${desks} established`,
  ]);
});

test('its size on the wire', () => {
  expect(octetsOf([])).toBe(0);
  expect(octetsOf(['permit in ip from any to any'])).toBe(30);
  // A zero between two, and two octets more for each 253.
  expect(octetsOf(['x'.repeat(126), 'x'.repeat(126)])).toBe(255);
  expect(octetsOf(['x'.repeat(127), 'x'.repeat(126)])).toBe(258);
});

test('a range is the fewest prefixes that make it up', () => {
  const texts = (from: string, to: string) =>
    prefixesIn([onLine(parseAddress(from)!), onLine(parseAddress(to)!)]).map(({ address, length }) =>
      [spanOf({ address, length })[0], length].join('/'),
    );
  const at = (text: string) => onLine(parseAddress(text)!);
  expect(texts('192.0.2.1', '192.0.2.6')).toEqual([
    `${at('192.0.2.1')}/32`,
    `${at('192.0.2.2')}/31`,
    `${at('192.0.2.4')}/31`,
    `${at('192.0.2.6')}/32`,
  ]);
  expect(texts('0.0.0.0', '255.255.255.255')).toEqual(['0/0']);
  expect(prefixesIn(spanOf(parsePrefix('2001:db8:0:40::/64')!.prefix))).toHaveLength(1);
});
