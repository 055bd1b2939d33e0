import { closeSettled } from '../store/derive-index.ts';
import { designsFrom } from '../store/designs-ahead.ts';
import type { CommandContext } from './definition.ts';

/** Settles what has ended by now, for a write from which nothing is derived. */
export function settle({ connection, site, at }: CommandContext): void {
  closeSettled(connection, designsFrom(connection, at, site), at);
}
