import { Refusal } from '../core/plan';
import { Overtaken } from './commit';
import { Problem, problemOf } from './problems';

test.each([
  [new Refusal('bad-input', 'no'), 422],
  [new Refusal('changed', 'no'), 409],
  [new Overtaken('no'), 409],
  [new Problem(418, 't', 'no'), 418],
  [Object.assign(new Error('disk'), { code: 'ER_DISK_FULL' }), 503],
  [Object.assign(new Error('gone'), { code: 'ECONNREFUSED' }), 503],
  [Object.assign(new Error('gone'), { code: 'PROTOCOL_CONNECTION_LOST' }), 503],
  [Object.assign(new Error('read only'), { code: 'ER_OPTION_PREVENTS_STATEMENT' }), 503],
  [Object.assign(new Error('locked'), { code: 'ER_LOCK_DEADLOCK' }), 503],
  [new TypeError('secret text somebody typed'), 500],
  ['a string', 500],
])('%s is answered with its status, and a defect says nothing of itself', (error, status) => {
  const { details } = problemOf(error);
  expect(details.status).toBe(status);
  expect(details.detail).not.toContain('secret');
  expect(details.detail).toMatch(/\.$|no/);
});
