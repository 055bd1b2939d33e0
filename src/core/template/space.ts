import { z } from 'zod';

/** How far blocks within a block stand apart, in the steps of the site's style. */
export const space = z.enum(['none', 'tight', 'even', 'wide']).optional();

/** The class for it; undefined where the style decides. */
export function spaceClass(space: string | undefined): string | undefined {
  return space && `space-${space}`;
}
