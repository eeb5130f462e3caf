import { moment, text } from './fields';
import { kind } from './kind';

/** A finding that somebody accepted, for the evidence it had then. */
export const acceptance = kind({
  word: 'acceptance',
  about: 'a finding somebody accepted: its key, the evidence it held for, reason, who, when (UTC)',
  since: 1,
  table: 'acceptance',
  edited: false,
  fields: {
    finding: text('finding', 200),
    evidence: text('evidence', 2000),
    reason: text('reason', 400),
    who: text('who', 60, { said: 'Your name' }),
    at: moment('at'),
  },
  title: ({ finding }) => `acceptance of ${finding}`,
});
