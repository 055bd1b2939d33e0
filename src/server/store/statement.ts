import type { Connection, Statement } from '../db/connection.ts';

const prepared = new WeakMap<object, Map<string, Statement>>();

/**
 * A statement of a connection, prepared once. SQL by hand is for what is asked for every page or
 * reads derived tables; here alone it is said what its rows are, `Row`, or the value where one
 * column is plucked.
 */
export function statement<Row = unknown>({ driver }: Connection, text: string): Statement<Row> {
  let known = prepared.get(driver);
  if (!known) prepared.set(driver, (known = new Map()));
  let found = known.get(text);
  if (!found) known.set(text, (found = driver.prepare(text)));
  return found as Statement<Row>;
}
