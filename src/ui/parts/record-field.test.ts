import fc from 'fast-check';
import { type NamedField, type TableName, fieldsOf, kinds, tableNames, toWire } from '@/core/plan';
import { drawnPlan } from '@/core/testing/kinds';
import { runs } from '@/core/testing/runs';
import { typedValue } from './record-field';

const uplink = (name: string) => fieldsOf(kinds.uplink.fields).find((field) => field.name === name)!;

describe('what is typed into a field of a record', () => {
  test('is a number where the kind has one, none where it may be absent', () => {
    expect(typedValue(uplink('mtu'), '1492')).toBe(1492);
    expect(typedValue(uplink('mtu'), 'none')).toBeNull();
    expect(typedValue(uplink('mtu'), '')).toBeNull();
  });
  test('is refused by name where it must not be empty, or is no number', () => {
    expect(() => typedValue(uplink('tier'), '')).toThrow('Tier cannot be left empty');
    expect(() => typedValue(uplink('tier'), 'two')).toThrow('Tier “two” is not a whole number');
  });
  test('is the network of a host typed with its mask', () => {
    expect(typedValue(uplink('network'), '198.51.100.9/29')).toBe('198.51.100.8/29');
    expect(typedValue(uplink('network'), 'nonsense')).toBe('nonsense');
  });
  const segment = (name: string) => fieldsOf(kinds.vlan.fields).find((field) => field.name === name)!;
  test('may have its unit behind it, and a code may be typed in small letters', () => {
    expect(typedValue(segment('growth'), '20 %')).toBe(20);
    expect(typedValue(segment('growth'), '20')).toBe(20);
    expect(() => typedValue(segment('growth'), '20 m')).toThrow('Growth “20 m” is not a whole number');
    expect(typedValue(segment('code'), 'ho')).toBe('HO');
    expect(typedValue(segment('colour'), '#e2a21b')).toBe('#e2a21b');
  });
  test('stays text where the kind has text', () =>
    expect(typedValue(uplink('dynamicName'), 'none')).toBe('none'));
});

/** What is typed; the others are chosen, ticked or have forms of their own. */
const typedFields = (table: TableName): readonly NamedField[] =>
  fieldsOf(kinds[table].fields).filter(
    ({ stored, reference }) =>
      !reference &&
      ['text', 'long-text', 'whole', 'code', 'address', 'prefix', 'mac', 'day'].includes(stored),
  );

test('what a field shows is read back as its value, of every kind', () => {
  const met = new Set<string>();
  fc.assert(
    fc.property(drawnPlan, (plan) => {
      for (const table of tableNames)
        for (const record of plan[table].values()) {
          const wire = toWire(table, record);
          for (const field of typedFields(table)) {
            const value = wire[field.name];
            if (value !== null) met.add(`${table}.${field.name}`);
            expect([field.name, typedValue(field, value === null ? '' : String(value))]).toEqual([
              field.name,
              value,
            ]);
          }
        }
    }),
    { numRuns: runs(20) },
  );
  for (const table of tableNames)
    for (const { name } of typedFields(table)) expect(met).toContain(`${table}.${name}`);
});
