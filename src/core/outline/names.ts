import { slugText } from '../pattern/slug.ts';
import { RESERVED_KEYS } from '../design/spec.ts';

const MAX_KEY = 64;

/** A name as keys and addresses that are made of it have it: an apostrophe parts no word. */
export function slugOf(name: string, language: string): string {
  return slugText(name.replace(/['’](?=\p{L})/gu, ''), language);
}

/** Whether a name is one that several have: "rowers". */
export function looksPlural(name: string, language: string): boolean {
  return (
    /^en\b/i.test(language) &&
    likeness(name, language) !== slugOf(name, language).replaceAll('-', '')
  );
}

/** The key of a type or subject set of a name: "Swap day" → "swap-day". */
export function typeKeyOf(name: string, language: string): string {
  return startingWithLetter(slugOf(name, language), 'type-');
}

/** The key of a field of a name: "sow from" → "sowFrom". */
export function fieldKeyOf(name: string, language: string): string {
  const camel = slugOf(name, language).replace(/-(.)/g, (_, c: string) => c.toUpperCase());
  const key = startingWithLetter(camel, 'field');
  return RESERVED_KEYS.includes(key) ? `${key}Field` : key;
}

function startingWithLetter(key: string, otherwise: string): string {
  return (/^[a-z]/.test(key) ? key : otherwise + key).slice(0, MAX_KEY);
}

/** A key that is free, with a number where it is not. */
export function freeKey(key: string, taken: Pick<ReadonlySet<string>, 'has'>): string {
  if (!taken.has(key)) return key;
  for (let n = 2; ; n++) {
    const next = `${key.slice(0, MAX_KEY - 4)}${n}`;
    if (!taken.has(next)) return next;
  }
}

const IRREGULAR: Record<string, (word: string) => string> = {
  person: (word) => `${word.charAt(0)}eople`,
  child: (word) => `${word}ren`,
  man: (word) => `${word.charAt(0)}en`,
};

/** Words that several are called by as one is. */
const UNCOUNTED = /\b(news|series|species|staff|equipment|information|advice|music)$/i;

/** A name as several are called; in other languages than English as it is. */
export function pluralOf(name: string, language: string): string {
  if (!/^en\b/i.test(language) || UNCOUNTED.test(name)) return name;
  const irregular = /(person|child|man)$/i.exec(name)?.[1];
  if (irregular)
    return name.slice(0, -irregular.length) + IRREGULAR[irregular.toLowerCase()]!(irregular);
  if (/[^aeiou]y$/i.test(name)) return `${name.slice(0, -1)}ies`;
  if (/(s|x|z|ch|sh)$/i.test(name)) return `${name}es`;
  return `${name}s`;
}

/** What names are compared by: case, accents, hyphens and the plural do not count. */
export function likeness(name: string, language: string): string {
  const folded = slugText(name, language).replaceAll('-', '');
  if (!/^en\b/i.test(language)) return folded;
  return folded
    .replace(/ies$/, 'y')
    .replace(/(s|x|z|ch|sh)es$/, '$1')
    .replace(/([^s])s$/, '$1');
}

/** A name with a capital at its beginning, as labels have it. */
export function capital(name: string): string {
  return name.charAt(0).toUpperCase() + name.slice(1);
}
