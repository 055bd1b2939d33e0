import { z } from 'zod';

/** A key: used in patterns, files and addresses of settings. */
export const key = z
  .string()
  .regex(
    /^[a-z][A-Za-z0-9_-]*$/,
    'A key starts with a small letter and has letters, digits, "_" or "-" only.',
  )
  .max(64, 'A key has at most 64 characters.');
