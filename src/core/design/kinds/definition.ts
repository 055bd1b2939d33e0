import type { Result } from '../../issue.ts';
import { refused } from '../../issue.ts';

type Refused = ReturnType<typeof refused>;
import type { ValueType } from '../../pattern/types.ts';
import type { RichNode } from '../../rich-text.ts';
import type { Instant } from '../../time/interval.ts';
import type { Field, FieldKind } from '../spec.ts';

/** What turning a given value into a stored one may need. */
export interface Given {
  /** For relative dates (ms UTC). */
  now: Instant;
  zone: string;
  /** Turns Markdown into a rich text document. */
  markdown: (source: string) => RichNode;
}

/** How filters treat a kind: which operators it takes and what they compare. */
export type FilterFamily =
  'text' | 'number' | 'yesno' | 'day' | 'instant' | 'choice' | 'members' | 'presence';

/** One kind of field: its type in patterns, its stored form, and how lists treat it. */
export interface FieldType {
  kind: FieldKind;
  /** In words: "text", "a date". */
  words: string;
  valueType: (field: Field) => ValueType;
  /** One value from a site folder or a form; null where blank. */
  parse: (raw: unknown, field: Field, given: Given) => Result<unknown>;
  family: FilterFamily;
  sortable: boolean;
}

/** Says that a raw value is none of this kind. */
export function notA(field: Field, wanted: string, raw: unknown, fix: string): Refused {
  const shown =
    typeof raw === 'string'
      ? `"${raw.length > 60 ? `${raw.slice(0, 60)}…` : raw}"`
      : JSON.stringify(raw)?.slice(0, 60);
  return refused({
    code: 'wrong-value',
    path: field.key,
    message: `${field.label} takes ${wanted}; here stands ${shown}.`,
    fix,
  });
}
