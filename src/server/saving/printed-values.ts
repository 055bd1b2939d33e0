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
  /** The same in further languages, by their tags. */
  languages: Record<string, Record<string, unknown>>;
  /** By field id, as they are stored: what the type does not say, or its kinds do not print. */
  stored: Values;
}

/** How values are printed: as reading them would take them. */
export interface Printing {
  language: string;
  /** Tags of the languages besides the site's own; none where left out. */
  further?: readonly string[];
  zone: string;
  pictures: MarkdownWorld;
}

/** The values of a stored revision for a file: read again, they are the same to the letter. */
export function printedValues(
  type: ContentType | undefined,
  stored: Values,
  how: Printing,
): PrintedValues {
  const printed: PrintedValues = { fields: {}, languages: {}, stored: {} };
  for (const [id, raw] of Object.entries(stored)) {
    const field = type?.fields.find((f) => f.id === id);
    if (field?.translated && raw !== null && printLanguages(printed, field, raw, how)) continue;
    const value = field && !field.translated ? printedValue(field, raw, how) : undefined;
    if (field && raw === null) printed.fields[field.key] = null;
    else if (value === undefined) printed.stored[id] = raw;
    else printed.fields[field!.key] = value;
  }
  return printed;
}

/** Prints what a translated field says in each language; false where that is not possible. */
function printLanguages(
  printed: PrintedValues,
  field: Field,
  raw: unknown,
  how: Printing,
): boolean {
  const { languages = {} } = raw as { languages?: Record<string, unknown> };
  const said = Object.entries(languages);
  const all = said.map(([tag, value]) => [tag, printedValue(field, value, how)] as const);
  const isKnown = (tag: string): boolean =>
    tag === how.language || (how.further?.includes(tag) ?? false);
  if (said.length === 0 || all.some(([tag, value]) => value === undefined || !isKnown(tag)))
    return false;
  for (const [tag, value] of all)
    if (tag === how.language) printed.fields[field.key] = value;
    else (printed.languages[tag] ??= {})[field.key] = value;
  return true;
}

/** A value as its kind prints it; undefined where reading that would give another. */
function printedValue(field: Field, value: unknown, how: Printing): unknown {
  if (value === undefined || value === null) return undefined;
  if (Array.isArray(value) !== field.many) return undefined;
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
