import { typedForward, typedSources } from './typed-forward';

test.each([
  ['', '443', { inside: 443 }],
  ['8443', ' 443 ', { inside: 443, from: 8443 }],
  ['5000-5009', '5000', { inside: 5000, from: 5000, count: 10 }],
  ['5000–5000', '22', { inside: 22, from: 5000, count: 1 }],
] as const)('outside “%s” to inside “%s”', (outside, inside, meant) =>
  expect(typedForward(outside, inside)).toEqual(meant),
);

test.each([
  ['', '', 'The inside port “” is no port'],
  ['0', '443', 'The outside port “0” is no port'],
  ['65536', '443', 'write a number from 1 to 65535'],
  ['5009-5000', '443', '“5009-5000” runs backwards; write 5000-5009.'],
  ['5000-5009-5020', '443', '“5000-5009-5020” is no range'],
  ['5000, 6000', '443', 'The outside port “5000, 6000” is no port'],
])('outside “%s” to inside “%s” is refused', (outside, inside, why) =>
  expect(() => typedForward(outside, inside)).toThrow(why),
);

test('who may come: addresses and subnets, host bits cleared, or anybody when it is written', () => {
  expect(typedSources('203.0.113.9, 198.51.100.7/24 2001:db8::1')).toEqual([
    '203.0.113.9/32',
    '198.51.100.0/24',
    '2001:db8::1/128',
  ]);
  expect(typedSources('Anybody')).toEqual([]);
  expect(typedSources('somewhere')).toEqual(['somewhere']);
  expect(() => typedSources('  ')).toThrow(
    'Left empty, this would be anybody; write anybody if that is meant',
  );
  expect(() => typedSources('203.0.113.9, anybody')).toThrow(
    'Anybody is everybody; leave out 203.0.113.9, or leave out anybody.',
  );
});
