import { type Converting, valuesAs } from '@/core/design/conversion.ts';
import { isDerived } from '@/core/design/computed.ts';
import type { ContentType, Design } from '@/core/design/spec.ts';
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

/** Stored values with what further languages say in translated fields, by their tags and ids. */
export function withLanguages(stored: Values, further: Readonly<Record<string, Values>>): Values {
  const all = { ...stored };
  for (const [language, values] of Object.entries(further))
    for (const [id, value] of Object.entries(values)) {
      if (value === null) continue;
      const own = all[id];
      const languages = isTranslated(own) ? own.languages : {};
      all[id] = { languages: { ...languages, [language]: value } } satisfies Translated;
    }
  return all;
}

/** What further languages say in stored values, by their tags and field ids. */
export function languagesIn(json: string, own: string): Record<string, Values> {
  const found: Record<string, Values> = {};
  for (const [id, value] of Object.entries(parsed(json)))
    if (isTranslated(value))
      for (const [language, said] of Object.entries(value.languages))
        if (language !== own) (found[language] ??= {})[id] = said;
  return found;
}

/** The values of a stored revision as a type reads them now. */
export function valuesOfType(
  { fields }: Pick<ContentType, 'fields'>,
  json: string,
  site: Converting,
): Values {
  return valuesAs(fields, readValues(json, site.language), site);
}

/** Whether a stored revision says anything in a language. */
export function hasWordsIn(json: string, language: string): boolean {
  return Object.keys(wordsIn(json, language)).length > 0;
}

/** Those of some revisions, in their order, that say something else in a language than before. */
export function wordsChanged<Stored extends { values: string }>(
  revisions: readonly Stored[],
  language: string,
): Stored[] {
  let last = '{}';
  return revisions.filter(({ values }) => {
    const words = JSON.stringify(wordsIn(values, language));
    const isOther = words !== last;
    last = words;
    return isOther;
  });
}

/** Those that read otherwise than before in the site's own language: words, or what all share. */
export function ownChanged<Stored extends { values: string }>(
  revisions: readonly Stored[],
  language: string,
): Stored[] {
  let last = '';
  return revisions.filter(({ values }) => {
    const read = JSON.stringify(readValues(values, language));
    const isOther = read !== last;
    last = read;
    return isOther;
  });
}

/** What a stored revision says in a language, by field id. */
function wordsIn(json: string, language: string): Values {
  const found: Values = {};
  for (const [id, value] of Object.entries(parsed(json)))
    if (isTranslated(value) && (value.languages[language] ?? null) !== null)
      found[id] = value.languages[language];
  return found;
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

/** The language of what is shown of an entry: the design's, or the site's own in place of it. */
export function spokenIn({ site, edition }: Design, language: string): string {
  return edition && language !== site.language ? edition.own : site.language;
}

/**
 * The values of what is shown in a language: words of one stored revision, everything else of
 * another.
 */
export function readShown(words: string, rest: string, language: string): Values {
  if (words === rest) return readValues(words, language);
  const [own, shared] = [parsed(words), parsed(rest)];
  const values: Values = {};
  for (const id of new Set([...Object.keys(shared), ...Object.keys(own)])) {
    const [word, value] = [own[id], shared[id]];
    if (isTranslated(word)) values[id] = word.languages[language] ?? null;
    else if (isTranslated(value)) values[id] = null;
    else values[id] = value;
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
