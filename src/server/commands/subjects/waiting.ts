import { derive } from '../../store/derive.ts';
import { statement } from '../../store/statement.ts';
import type { CommandContext } from '../definition.ts';

/**
 * Derives what follows from other subjects in a set: addresses of entries whose converted values
 * name one that was not there, or is no more. Of other entries nothing does: what they name is
 * there.
 */
export function deriveWaiting({ connection, site, at, step }: CommandContext, set: string): void {
  const waiting = site.design.types.filter((type) =>
    type.fields.some((field) => field.set === set && field.replaces),
  );
  const ids = statement<string>(connection, 'SELECT id FROM entry WHERE type = ?').pluck();
  const touched = waiting.flatMap(({ id }) => ids.all(id));
  derive(connection, { site, settled: at, touched, step });
}
