import { MAX_JSON_DEPTH, jsonDepth } from '@/core/json-depth.ts';
import { type Result, ok, refused } from '@/core/issue.ts';

/** Reads JSON that somebody sent: not deeper than documents may nest. */
export function parseInput(text: string): Result<unknown> {
  const wrong = (message: string): Result<unknown> =>
    refused({ code: 'wrong-form', message, fix: 'Reload the page and try again.' });
  if (jsonDepth(text) > MAX_JSON_DEPTH)
    return wrong(`What was sent nests more than ${MAX_JSON_DEPTH} deep.`);
  try {
    return ok(JSON.parse(text));
  } catch {
    return wrong('What was sent is not JSON.');
  }
}
