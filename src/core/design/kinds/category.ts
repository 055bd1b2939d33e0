import type { FieldType } from './definition.ts';
import { reference } from './reference.ts';

/** A subject of a tree, prepared beforehand; stored as its key. */
export const category: FieldType = { ...reference, kind: 'category', words: 'a category' };
