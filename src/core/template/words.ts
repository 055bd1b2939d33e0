import { de } from './public-words/de.ts';
import { en } from './public-words/en.ts';
import { es } from './public-words/es.ts';
import { fr } from './public-words/fr.ts';
import { it } from './public-words/it.ts';
import { nl } from './public-words/nl.ts';
import { pt } from './public-words/pt.ts';
import type { PublicWords } from './public-words/public-words.ts';

/** By primary subtags (BCP 47). */
const BY_LANGUAGE: Record<string, PublicWords> = { de, en, es, fr, it, nl, pt };

/** The words in a language, by its primary subtag; English where there are none. */
export function wordsOf(language: string): PublicWords {
  return KNOWN.get(language) ?? looked(language);
}

/** The words of the languages that were asked for. */
const KNOWN = new Map<string, PublicWords>();

function looked(language: string): PublicWords {
  const words = BY_LANGUAGE[language.split('-')[0]!.toLowerCase()] ?? en;
  KNOWN.set(language, words);
  return words;
}
