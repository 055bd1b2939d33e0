import { expect, test } from 'vitest';
import { sentence, withinSentence } from './words.ts';

test.each([
  ['sowFrom', 'Sow from'],
  ['days_to-harvest', 'Days to harvest'],
  ['title', 'Title'],
  ['', ''],
])('the key "%s" reads "%s"', (key, words) => {
  expect(sentence(key)).toBe(words);
});

test.each([
  ['Sow from', 'en', 'sow from'],
  ['SEO title', 'en', 'SEO title'],
  ['Stück', 'de', 'Stück'],
  ['Stück', 'de-AT', 'Stück'],
  ['Été', 'fr', 'été'],
  ['', 'en', ''],
])('"%s" in a sentence (%s) is "%s"', (label, language, words) => {
  expect(withinSentence(label, language)).toBe(words);
});
