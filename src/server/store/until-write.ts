import { LRUCache } from 'lru-cache';
import type { Connection } from '../db/connection.ts';
import { totalGeneration } from './write.ts';

/** What was worked out of databases, each until its next write; least recently used first out. */
export class UntilWrite<Value extends NonNullable<unknown>> {
  private readonly known = new WeakMap<
    Connection['driver'],
    { generation: number; values: LRUCache<string, Value> }
  >();

  /** `most`: so many values are kept of a database. */
  constructor(private readonly most: number) {}

  /** As worked out since the last write, else worked out now. */
  get(connection: Connection, key: string, workOut: () => Value): Value {
    const generation = totalGeneration(connection);
    let known = this.known.get(connection.driver);
    if (known?.generation !== generation) {
      known = { generation, values: new LRUCache({ max: this.most }) };
      this.known.set(connection.driver, known);
    }
    let value = known.values.get(key);
    if (value === undefined) known.values.set(key, (value = workOut()));
    return value;
  }
}
