import { plainText } from '../../rich-text/index.ts';
import { type PatternFunction, ofRichText } from './definition.ts';

export const plain: PatternFunction = ofRichText(
  'plain',
  'All words of a rich text, without its form.',
  plainText,
  'Blue Sweet.',
);
