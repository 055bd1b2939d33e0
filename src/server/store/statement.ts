import type { Connection, Statement } from '../db/connection.ts';

/** A prepared statement. */
export type Prepared = Statement;

const prepared = new WeakMap<object, Map<string, Prepared>>();

/** A statement of a connection, prepared once. */
export function statement({ driver }: Connection, text: string): Prepared {
  let known = prepared.get(driver);
  if (!known) prepared.set(driver, (known = new Map()));
  let found = known.get(text);
  if (!found) known.set(text, (found = driver.prepare(text)));
  return found;
}
