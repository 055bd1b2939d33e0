import { hasText } from '../text.ts';
import type { Scope } from './types.ts';

type Text = (scope: Scope) => string | null;
type EntryValues = { values: Record<string, unknown> };

/** Own texts of the entry (by field id), each after a literal; and the literal at the end. */
export interface OwnTexts {
  fields: string[];
  before: string[];
  end: string;
}

/** Longer texts go the long way, which says where a result is too long. */
const SHORT = 4096;

/** The texts and literals of parts one after the other; null where a part reads more. */
export function inARow(parts: { own: OwnTexts | null }[]): OwnTexts | null {
  const row: OwnTexts = { fields: [], before: [], end: '' };
  for (const { own } of parts) {
    if (!own) return null;
    own.before.forEach((literal, i) => {
      row.before.push(row.end + literal);
      row.fields.push(own.fields[i]!);
      row.end = '';
    });
    row.end += own.end;
  }
  return row;
}

/**
 * One or two short texts of the entry's own in one closure, as most patterns are. Where one is
 * blank, long or no text it is left to `otherwise`, which gives the same.
 */
export function quick(
  row: OwnTexts | null,
  escape: (text: string) => string,
  otherwise: Text,
): Text | null {
  if (!row || row.before.join('').length + row.end.length > SHORT) return null;
  const { fields, before, end } = row;
  if (fields.length === 1) return oneText(fields[0]!, before[0]!, end, escape, otherwise);
  return fields.length === 2 ? twoTexts(row, escape, otherwise) : null;
}

function oneText(
  field: string,
  before: string,
  after: string,
  escape: (text: string) => string,
  otherwise: Text,
): Text {
  return (scope) => {
    const text = (scope.own as EntryValues | null)?.values[field];
    if (typeof text !== 'string' || text.length > SHORT || !hasText(text)) return otherwise(scope);
    return before + escape(text) + after;
  };
}

function twoTexts(row: OwnTexts, escape: (text: string) => string, otherwise: Text): Text {
  const [first, second] = row.fields as [string, string];
  const [before, between] = row.before as [string, string];
  const after = row.end;
  return (scope) => {
    const values = (scope.own as EntryValues | null)?.values;
    const a = values?.[first];
    const b = values?.[second];
    if (typeof a !== 'string' || typeof b !== 'string' || a.length + b.length > SHORT)
      return otherwise(scope);
    if (!hasText(a) || !hasText(b)) return otherwise(scope);
    return before + escape(a) + between + escape(b) + after;
  };
}
