import type { Issue } from '../issue.ts';
import { readPattern } from '../pattern/read.ts';
import type { Part } from '../pattern/tree.ts';
import { isBelowAny, isReserved, splitPageNumber } from './path.ts';

const VALUE = '\u0000';
const PATH = '\u0001';

/**
 * The first segment of a pattern's addresses, where it is the same for all; null where values
 * stand in it.
 */
export function firstSegment(source: string): string | null {
  const first = skeleton(readPattern(source).tree.parts, true).split('/')[1] ?? '';
  return /[\u0000\u0001]/.test(first) || first === '' ? null : first;
}

/**
 * What keeps a pattern from giving addresses that can be had: its form, reserved paths, listings.
 */
export function checkAddressPattern(
  source: string,
  listings: ReadonlySet<string>,
  /** Paths below which the pages of other languages stand. */
  otherRoots: readonly string[] = [],
): Issue[] {
  if (source.trim() === '')
    return [
      issue('blank', 'The pattern is blank.', 'Leave it out for a type without pages of its own.'),
    ];
  const { parts } = readPattern(source).tree;
  const forms = [...new Set([true, false].map((optional) => skeleton(parts, optional)))];
  const found = forms.flatMap((form) => checkForm(form, listings, otherRoots) ?? []);
  return found.slice(0, 1);
}

function checkForm(
  form: string,
  listings: ReadonlySet<string>,
  otherRoots: readonly string[],
): Issue | null {
  if (form === '') return null;
  if (!form.startsWith('/') && !form.startsWith(PATH))
    return issue('no-slash', 'An address starts with a slash.', 'Put "/" before it.', '/');
  const segments = form.replace(/^\//, '').replace(/\/$/, '').split('/');
  if (segments.some((s, i) => s === '' && (i > 0 || segments.length > 1)))
    return issue('empty-segment', 'Between two slashes stands nothing.', 'Leave one of them out.');
  if (segments.some((s) => s === '.' || s === '..'))
    return issue('dot-segment', 'A segment is "." or "..", which leads elsewhere.', 'Name it.');
  const [first] = segments as [string, ...string[]];
  if (!first.includes(VALUE) && !first.includes(PATH) && isReserved(`/${first}`))
    return issue('reserved', `The site keeps /${first} for itself.`, 'Start with another word.');
  const path = `/${segments.join('/')}`;
  if (isBelowAny(otherRoots, path) || otherRoots.includes(path))
    return issue(
      'reserved',
      `The pages of another language stand below /${first}.`,
      'Start with another word.',
    );
  const page = splitPageNumber(path);
  if (listings.has(path) || (page && listings.has(page.address)))
    return issue('taken', `A listing stands at ${path}.`, 'Choose another, or add a field to it.');
  return null;
}

/** A pattern with a mark in place of each value, its optional parts in or out. */
function skeleton(parts: Part[], optional: boolean): string {
  return parts
    .map((part) => {
      if (part.kind === 'text') return part.text;
      if (part.kind === 'group') return optional ? skeleton(part.parts, optional) : '';
      const { expression } = part;
      return expression.kind === 'path' && expression.names.at(-1)?.name === 'path' ? PATH : VALUE;
    })
    .join('');
}

function issue(code: string, message: string, fix: string, replacement?: string): Issue {
  return {
    code: `address-${code}`,
    message,
    fix,
    ...(replacement === undefined ? {} : { range: { start: 0, end: 0 }, replacement }),
  };
}
