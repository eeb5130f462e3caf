import { withTelephones } from '../testing/access';
import { telephoneOptions } from './telephones';

/** dnsmasq-options(5): an option without the prefix option6: is DHCPv4, so its value holds IPv4 addresses or names. */
const told = (registrar: string) =>
  /option:sip-server,(.*)$/m.exec(telephoneOptions(withTelephones({ boot: '', registrar })))?.[1];

test.each([
  ['sip.example.net', 'sip.example.net'],
  ['198.51.100.7', '198.51.100.7'],
  ['2001:db8::7', undefined],
])('telephones that register at %s are told %s over IPv4', (registrar, expected) => {
  expect(told(registrar)).toBe(expected);
});
