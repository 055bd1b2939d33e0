import { firstOf } from '../../rich-text/index.ts';
import { type PatternFunction, ofRichText } from './definition.ts';

export const firstHeading: PatternFunction = ofRichText(
  'firstHeading',
  'The words of the first heading.',
  (document) => firstOf(document, 'heading'),
  'Blue',
);
