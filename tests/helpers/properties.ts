import fc from 'fast-check';

// A case that fails is told at once, with its seed and path; `SHRINK=1` looks for the smallest one,
// which may take hours where a case takes seconds.
fc.configureGlobal({ endOnFailure: process.env['SHRINK'] === undefined });
