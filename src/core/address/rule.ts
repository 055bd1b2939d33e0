import type { CompiledPattern } from '../pattern/compile.ts';
import type { ContentType } from '../design/spec.ts';

/** A type's compiled address pattern, and the references it reads through. */
export interface AddressRule {
  type: ContentType;
  pattern: CompiledPattern;
  /** The first segment of all its addresses; null where values stand in it. */
  /** The pattern as it is written, with fields by their paths. */
  byIds: string;
  firstSegment: string | null;
}
