export { type RichFault, checkRichText } from './check.ts';
export {
  MAX_NESTING,
  type RichMark,
  type RichNode,
  isDocument,
  mapNodes,
  nodesOf,
} from './document.ts';
export { BLOCK_CHOICES, MARK_CHOICES, MARKS, NODES } from './nodes.ts';
export { isSameMark, nestedMarks } from './nesting.ts';
export { normalRichText } from './normal.ts';
export { textLines } from './lines.ts';
export { richTextSchema } from './schema.ts';
export { firstOf, namedIn, paragraphsOf, partsIn, plainText } from './read.ts';
export { type Removed, type TextForm, withinForm } from './form.ts';
