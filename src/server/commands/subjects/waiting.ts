import { derive } from '../../store/derive.ts';
import { statement } from '../../store/statement.ts';
import type { CommandContext } from '../definition.ts';

/**
 * Derives entries anew whose converted values may name a subject that was not there: only where
 * addresses are built on subjects through a field that took the place of another.
 */
export function deriveWaiting({ connection, site, at, step }: CommandContext, set: string): void {
  const waiting = site.design.types.filter((type) =>
    type.fields.some((field) => field.set === set && field.replaces),
  );
  if (waiting.length === 0) return;
  const ids = statement<string>(connection, 'SELECT id FROM entry WHERE type = ?').pluck();
  const touched = waiting.flatMap(({ id }) => ids.all(id));
  derive(connection, { site, settled: at, touched, step });
}
