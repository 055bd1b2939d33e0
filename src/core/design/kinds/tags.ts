import type { FieldType } from './definition.ts';
import { reference } from './reference.ts';

/** Subjects of a loose set, made while typing; stored as their keys. */
export const tags: FieldType = { ...reference, kind: 'tags', words: 'tags' };
