import { plainText } from '../../rich-text/index.ts';
import { one } from '../types.ts';
import { type PatternFunction, ofRichText } from './definition.ts';

/** So many words are read in a minute. */
const WORDS_A_MINUTE = 200;

const minutes = (document: unknown): number => {
  const words = (plainText(document) ?? '').split(/\s+/u).filter(Boolean).length;
  return Math.ceil(words / WORDS_A_MINUTE);
};

export const readingMinutes: PatternFunction = {
  ...ofRichText(
    'readingMinutes',
    'How many minutes a rich text takes to read, at 200 words a minute.',
    () => null,
    '1',
  ),
  returns: () => one('number'),
  call: ([document]) => minutes(document),
};
