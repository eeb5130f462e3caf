import fc from 'fast-check';

/**
 * Laws are tried on the same sites each time, so that a commit that passed passes again and a failure is there tomorrow.
 * SEED=7 tries others, SEED=any others each time: for looking for what nobody has seen yet.
 */
const wanted = process.env.SEED ?? '11';
if (wanted !== 'any') fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(wanted) });
