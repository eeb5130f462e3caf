import { type Call, type Remedy } from '../plan';
import { done, emptySite } from '../testing/plans';
import { perform } from './operations';

describe('a call', () => {
  test('is typed by its operation, and a wrong one is refused where types do not reach', () => {
    // @ts-expect-error There is no such operation.
    const misspelt: Call = { operation: 'addSegmnt', input: { purpose: 'staff' } };
    // @ts-expect-error There is no such purpose.
    const wrong: Call = { operation: 'addSegment', input: { purpose: 'stuff' } };
    // @ts-expect-error The field is called purpose.
    const other: Remedy = { operation: 'addSegment', input: { purpse: 'staff' }, label: 'Add it' };
    for (const call of [misspelt, wrong, other]) expect(() => perform(emptySite(), call, 'c1')).toThrow();
    expect(done(emptySite(), 'addSegment', { purpose: 'staff' }).vlan.size).toBe(1);
  });
});
