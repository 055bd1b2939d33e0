import { type Result, ok, refused } from '@/core/issue.ts';

const MAX_DEPTH = 120;

/** Reads JSON that somebody sent: not deeper than documents may nest. */
export function parseInput(text: string): Result<unknown> {
  const wrong = (message: string): Result<unknown> =>
    refused({ code: 'wrong-form', message, fix: 'Reload the page and try again.' });
  if (depthOf(text) > MAX_DEPTH) return wrong(`What was sent nests more than ${MAX_DEPTH} deep.`);
  try {
    return ok(JSON.parse(text));
  } catch {
    return wrong('What was sent is not JSON.');
  }
}

/** How deep brackets nest, those in strings left out. */
function depthOf(text: string): number {
  let depth = 0;
  let deepest = 0;
  let inString = false;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i);
    if (inString) {
      if (c === 0x5c) i++;
      else if (c === 0x22) inString = false;
    } else if (c === 0x22) inString = true;
    else if (c === 0x7b || c === 0x5b) deepest = Math.max(deepest, ++depth);
    else if (c === 0x7d || c === 0x5d) depth--;
  }
  return deepest;
}
