import type { Field } from '@/core/design/field.ts';
import { parseValue } from '@/core/design/field-values.ts';
import type { Given } from '@/core/design/kinds/definition.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { same } from '@/core/design-edit/properties.ts';
import type { RichNode } from '@/core/rich-text.ts';
import { type MarkdownWorld, markdownToRichText } from '../files/markdown.ts';
import { richTextToMarkdown } from '../files/rich-text-markdown.ts';

/** Values as a file has them. */
export interface PrintedValues {
  /** By key, in the words of the field's kind. */
  fields: Record<string, unknown>;
  /** By field id, as they are stored: what the type does not say, or its kinds do not print. */
  stored: Values;
}

/** How values are printed: as reading them would take them. */
export interface Printing {
  language: string;
  zone: string;
  pictures: MarkdownWorld;
}

/** The values of a stored revision for a file: read again, they are the same to the letter. */
export function printedValues(
  type: ContentType | undefined,
  stored: Values,
  how: Printing,
): PrintedValues {
  const printed: PrintedValues = { fields: {}, stored: {} };
  for (const [id, raw] of Object.entries(stored)) {
    const field = type?.fields.find((f) => f.id === id);
    const value = field && printedValue(field, raw, how);
    if (value === undefined) printed.stored[id] = raw;
    else printed.fields[field!.key] = value;
  }
  return printed;
}

/** A value as its kind prints it; undefined where reading that would give another. */
function printedValue(field: Field, raw: unknown, how: Printing): unknown {
  if (raw === null) return null;
  const value = field.translated ? inOneLanguage(raw, how.language) : raw;
  if (value === undefined || Array.isArray(value) !== field.many) return undefined;
  const kind = kindOf(field);
  const one = (item: unknown): unknown =>
    (kind.kind === 'richtext' ? richTextToMarkdown(item as RichNode, how.pictures) : null) ??
    kind.print(item, field, how.zone);
  const given: Given = {
    now: 0,
    zone: how.zone,
    richText: (source) => markdownToRichText(source, how.pictures),
  };
  try {
    const printed = Array.isArray(value) ? value.map(one) : one(value);
    const read = parseValue(printed, field, given);
    return read.ok && same(read.value, value) ? printed : undefined;
  } catch {
    return undefined; // not of its kind
  }
}

/** The value of a translated field that is there in one language only. */
function inOneLanguage(raw: unknown, language: string): unknown {
  const languages = (raw as { languages?: Record<string, unknown> }).languages ?? {};
  const [only, ...more] = Object.keys(languages);
  return only === language && more.length === 0 ? (languages[only] ?? undefined) : undefined;
}
