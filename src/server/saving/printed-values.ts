import type { Field } from '@/core/design/field.ts';
import { parseValue } from '@/core/design/field-values.ts';
import type { Given } from '@/core/design/kinds/definition.ts';
import { kindOf } from '@/core/design/kinds/index.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';
import { same } from '@/core/design-edit/properties.ts';
import type { RichNode } from '@/core/rich-text/index.ts';
import { markdownToRichText } from '../files/markdown.ts';
import type { MarkdownWorld } from '../files/markdown-world.ts';
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
  const given: Given & Printing = {
    ...how,
    now: 0,
    richText: (source) => markdownToRichText(source, how.pictures),
  };
  const one = (item: unknown): unknown => {
    const printed = kind.print(item, field, how.zone);
    return kind.kind === 'richtext' ? markdownOf(printed as RichNode, field, given) : printed;
  };
  try {
    const printed = Array.isArray(value) ? value.map(one) : one(value);
    const read = parseValue(printed, field, given);
    return read.ok && same(read.value, value) ? printed : undefined;
  } catch {
    return undefined; // not of its kind
  }
}

/** A printed text as Markdown that its field reads as the same. */
export function markdownOf(printed: RichNode, field: Field, given: Given & Printing): string {
  const read = (doc: RichNode): unknown => {
    const parsed = kindOf(field).parse(doc, field, given);
    return parsed.ok ? parsed.value : null;
  };
  return richTextToMarkdown(printed, {
    world: given.pictures,
    isSame: (doc, wanted) => same(read(doc), read(wanted)),
  });
}

/** The value of a translated field that is there in one language only. */
function inOneLanguage(raw: unknown, language: string): unknown {
  const languages = (raw as { languages?: Record<string, unknown> }).languages ?? {};
  const [only, ...more] = Object.keys(languages);
  return only === language && more.length === 0 ? (languages[only] ?? undefined) : undefined;
}
