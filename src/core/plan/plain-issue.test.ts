import fc from 'fast-check';
import * as z from 'zod';
import { decoded, encoded, shownValue } from './plain-issue';

const wrong = (schema: z.ZodType, value: unknown) => {
  const read = decoded(schema, value);
  if (!('wrong' in read)) throw new Error('it was read');
  return read.wrong;
};

test.each([
  [z.string(), undefined, 'it is missing; write text'],
  [z.number(), 'ten', '“ten” is not a number; write a number'],
  [z.int(), 1.5, '“1.5” is not a whole number; write a whole number'],
  [z.boolean(), null, '“null” is not true or false; write true or false'],
  [z.object({}), [], '“[]” is not an object; write an object'],
  [z.array(z.string()), 'a', '“a” is not a list; write a list'],
  [z.null(), 0, '“0” is not null; write null'],
  [z.literal('on'), 'off', '“off” is no choice here; write on'],
  [z.enum(['access', 'trunk', 'parked']), 'hub', '“hub” is no choice here; write access, trunk or parked'],
  [z.string().max(3), 'four', '“four” has 4 characters; write at most 3'],
  [z.array(z.number()).max(1), [1, 2], 'the list has 2 items; at most 1 fit'],
  [z.number().max(9), 10, '“10” is too large; write at most 9'],
  [z.string().min(1), '', 'it is empty; write at least one character'],
  [z.string().min(3), 'ab', '“ab” is too short; write at least 3 characters'],
  [z.array(z.number()).min(1), [], 'the list is empty; name at least one'],
  [z.array(z.number()).min(2), [1], 'the list is too short; name at least 2'],
  [z.number().min(1), 0, '“0” is too small; write at least 1'],
  [z.number().multipleOf(4096), 5, '“5” is not a multiple of 4096; write one'],
  [z.strictObject({ a: z.int() }), { a: 1, b: 2, c: 3 }, 'there is no field “b”, “c” here; leave it out'],
  [z.iso.datetime(), 'noon', '“noon” is not a moment; write it like 2026-05-04T10:20:30Z'],
  [
    z.string().regex(/^x/),
    'y',
    '“y” does not have the form that is asked for here; look at the others of its kind',
  ],
  [z.record(z.string().max(1), z.int()), { bb: 1 }, 'a name in it is not one that is allowed; leave it out'],
])('%#: what is wrong is said, with the value and what to write', (schema, value, message) =>
  expect(wrong(schema, value)).toMatchObject({ message, named: false }),
);

test('of many choices the first are named', () => {
  const many = Array.from({ length: 30 }, (_, i) => `kind-${i}`);
  expect(wrong(z.enum(many), 'x').message).toMatch(/write one of kind-0, .*, kind-19 …$/);
});

test('a message of the schema itself goes before ours, and says what it is about', () => {
  const vid = z.number().refine((n) => n < 4095, 'The VLAN id is too large; write up to 4094');
  expect(wrong(z.object({ vid }), { vid: 4095 })).toEqual({
    path: ['vid'],
    message: 'The VLAN id is too large; write up to 4094',
    named: true,
  });
});

test('of several forms, the one that is nearest says what is wrong, and where', () => {
  const end = z.union([
    z.strictObject({ port: z.string() }),
    z.strictObject({ ssid: z.string(), at: z.string() }),
  ]);
  expect(wrong(z.object({ from: z.array(end) }), { from: [{ ssid: 'Guests', at: 7 }] })).toEqual({
    path: ['from', 0, 'at'],
    message: '“7” is not text; write text',
    named: false,
  });
  expect(wrong(z.union([z.string(), z.number()]), true).path).toEqual([]);
});

test('a value is shown shortened, never half a character', () => {
  expect(shownValue(undefined)).toBe('nothing');
  fc.assert(
    fc.property(fc.anything({ withBigInt: false }), (value) => {
      const shown = shownValue(value);
      expect(shown.isWellFormed()).toBe(true);
      expect(shown.length).toBeLessThanOrEqual(63);
    }),
  );
});

test('whatever is read, it is the value or a sentence; and written, it is read again', () => {
  const schema = z.object({
    name: z.string().min(1).max(5),
    at: z.union([z.int(), z.null()]),
    list: z.array(z.enum(['a', 'b'])).max(3),
  });
  const near = fc.record(
    {
      name: fc.oneof(fc.string({ maxLength: 8 }), fc.anything({ withBigInt: false })),
      at: fc.oneof(fc.integer(), fc.constant(null), fc.anything({ withBigInt: false })),
      list: fc.oneof(
        fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 4 }),
        fc.anything({ withBigInt: false }),
      ),
    },
    { requiredKeys: [] },
  );
  let [good, bad] = [0, 0];
  fc.assert(
    fc.property(near, (value) => {
      const read = decoded(schema, value);
      if ('value' in read) {
        good++;
        expect(encoded(schema, read.value)).toEqual(read);
        return;
      }
      bad++;
      expect(['name', 'at', 'list']).toContain(read.wrong.path[0]);
      expect(read.wrong.message).toMatch(/^[^\n]*(; (write|name|leave|at most|look)|none of the forms)/u);
    }),
    { numRuns: 300 },
  );
  expect(good).toBeGreaterThan(5);
  expect(bad).toBeGreaterThan(50);
});
