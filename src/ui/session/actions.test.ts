import { subnetsOf } from '@/core/plan';
import { soundGear, vlanFor } from '@/core/testing/gear';
import { orNone, typedAddress, typedPrefix, wholeNumber } from './actions';

const plan = soundGear();
const [subnet] = subnetsOf(plan, vlanFor(plan, 'staff').id);

test.each([' ', 'None', 'not KNOWN'])('“%s” says that there is nothing', (text) =>
  expect(orNone(text, () => 7, 'not known')).toBeNull(),
);
test('the word of one field is none for another', () => {
  expect(orNone('by speed', (text) => text, 'not known')).toBe('by speed');
  expect(orNone('12', (text) => wholeNumber(text, 'Cost'))).toBe(12);
});

test.each(['', '1.5', '-3', '1e3', '0x10', 'two'])('“%s” is refused as a whole number, by name', (text) =>
  expect(() => wholeNumber(text, 'Cost', 'cost')).toThrow(
    `Cost “${text}” is not a whole number; write digits only.`,
  ),
);

test('a subnet is typed whole, host bits cleared, or by its length alone where there is one', () => {
  expect(typedPrefix('10.9.8.7/24', undefined)).toBe('10.9.8.0/24');
  expect(typedPrefix('/25', subnet)).toMatch(/\.0\/25$/);
  expect(typedPrefix('/25', undefined)).toBe('/25');
  expect(() => typedPrefix('/33', subnet)).toThrow('A length of /33 is too long; write a smaller number.');
  expect(typedPrefix('nonsense', subnet)).toBe('nonsense');
});

test('an address is typed whole, or short beside its subnet; what is none stays as it is typed', () => {
  expect(typedAddress('.24', subnet)).toMatch(/^10\..*\.24$/);
  expect(typedAddress('2001:DB8::1', subnet)).toBe('2001:db8::1');
  expect(typedAddress(' .24 ', undefined)).toBe('.24');
  expect(typedAddress('.300', subnet)).toBe('.300');
});
