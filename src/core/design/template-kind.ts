import type { Template } from './spec.ts';

/** Whether templates of a kind stand around pages, or within what does, and so read none. */
export function isAroundPages(kind: Template['kind']): boolean {
  return kind === 'frame' || kind === 'menu';
}
