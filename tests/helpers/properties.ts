import fc from 'fast-check';

const { SEED, LONG, SHRINK } = process.env;

// The same cases are tried every time, so that a change passes or fails by what it changes.
// `SEED=7` tries others; `LONG=200` so many of each of the long ones, others every time.
// A case that fails is told at once, with its seed and path; `SHRINK=1` looks for the smallest one,
// which may take hours where a case takes seconds.
fc.configureGlobal({
  ...(SEED || !LONG ? { seed: Number(SEED ?? 1) } : {}),
  endOnFailure: SHRINK === undefined,
});
