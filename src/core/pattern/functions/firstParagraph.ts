import { firstOf } from '../../rich-text/index.ts';
import { type PatternFunction, ofRichText } from './definition.ts';

export const firstParagraph: PatternFunction = ofRichText(
  'firstParagraph',
  'The words of the first paragraph.',
  (document) => firstOf(document, 'paragraph'),
  'Sweet.',
);
