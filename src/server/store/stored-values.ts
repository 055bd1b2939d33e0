import { type Converting, valuesAs } from '@/core/design/conversion.ts';
import { isDerived } from '@/core/design/computed.ts';
import type { ContentType } from '@/core/design/spec.ts';
import type { Values } from '@/core/design/values.ts';

/** How the value of a translated field is stored: one for each language, by BCP 47 tag. */
interface Translated {
  languages: Record<string, unknown>;
}

function isTranslated(value: unknown): value is Translated {
  return typeof value === 'object' && value !== null && 'languages' in value;
}

/** Values as a revision stores them, by field id: a translated field holds a value per language. */
export function storedValues(type: ContentType, values: Values, language: string): Values {
  const own = new Set(type.fields.map((f) => f.id));
  const translated = new Set(type.fields.filter((f) => f.translated).map((f) => f.id));
  const derived = new Set(type.fields.filter(isDerived).map((f) => f.id));
  return Object.fromEntries(
    Object.entries(values).flatMap(([id, value]) => {
      if (derived.has(id) || (value === null && !own.has(id))) return [];
      const isLaidOut = translated.has(id) && value !== null;
      const laidOut: Translated = { languages: { [language]: value } };
      return [[id, isLaidOut ? laidOut : value]];
    }),
  );
}

/** The values of a stored revision as a type reads them now. */
export function valuesOfType(
  { fields }: Pick<ContentType, 'fields'>,
  json: string,
  site: Converting,
): Values {
  return valuesAs(fields, readValues(json, site.language), site);
}

/** The values of a stored revision in a language; none where they cannot be read. */
export function readValues(json: string, language: string): Values {
  const values = parsed(json);
  for (const id in values) {
    const value = values[id];
    if (isTranslated(value)) values[id] = value.languages[language] ?? null;
  }
  return values;
}

function parsed(json: string): Values {
  try {
    const values: unknown = JSON.parse(json);
    return typeof values === 'object' && values !== null && !Array.isArray(values)
      ? (values as Values)
      : {};
  } catch {
    return {};
  }
}
