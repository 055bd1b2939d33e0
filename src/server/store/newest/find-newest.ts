import type { Column } from '@/core/listing/columns.ts';
import type { ResolvedFilter, Test } from '@/core/listing/resolve.ts';
import type { EntryState } from '@/core/publication/model.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import { asOf } from '../as-of.ts';
import { statement } from '../statement.ts';
import { UntilWrite } from '../until-write.ts';
import { settledInstant } from '../write.ts';
import { type Numbers, both, either, numbersIn, numbersOf, without } from './numbers.ts';

/** Which entries are looked for, and their order. */
export interface NewestQuery {
  /** Ids of the types whose entries they are. */
  types: readonly string[];
  /** A query of the full-text index; null where nothing is searched for. */
  search: string | null;
  /** Deleted ones are found only where they are asked for. */
  state: EntryState | 'deleted' | null;
  filter: ResolvedFilter | null;
  /** By how well they fit what is searched for where null. Blanks come last. */
  order: { column: Column; descending: boolean } | null;
  /** Ids of the fields whose references count where it is asked what they lead to. */
  references: readonly string[];
}

/**
 * The entries that a query finds as of an instant, in its order, by their numbers: filters and
 * searches read the newest revisions.
 */
export function findNewest(connection: Connection, query: NewestQuery, at: Instant): number[] {
  return new Finder(connection, query, at).find();
}

/** How a text `t` passes. */
const PASSES = {
  contains: 'instr(t, @value) > 0',
  starts: 'substr(t, 1, length(@value)) = @value',
  word: 'has_word(t, @value)',
};
/** Beyond so many, those that have the words in their name come first, then what was saved last. */
const MOST_RANKED = 20_000;
const SAVED = { name: '@saved', family: 'instant', field: null } as const;

/** Lists that were read. */
const READ = new UntilWrite<Int32Array>(32);

class Finder {
  private readonly most: number;

  constructor(
    private readonly connection: Connection,
    private readonly query: NewestQuery,
    private readonly at: Instant,
  ) {
    this.most = this.numbers('SELECT coalesce(max(id), 0) FROM newest')[0]!;
  }

  find(): number[] {
    const { query } = this;
    let found = this.there();
    if (query.state !== null && query.state !== 'deleted')
      found = both(found, this.inState(query.state));
    if (query.filter !== null) found = both(found, this.holding(query.filter, found));
    const ranked = query.search === null ? null : this.searched(query.search, query.order === null);
    if (ranked && query.order === null) return [...ranked].filter((id) => found[id] === 1);
    if (ranked) found = both(found, this.of(ranked));
    return this.ordered(found);
  }

  /** The entries of the types at hand that are there at the instant, or deleted by then. */
  private there(): Numbers {
    const { types } = this.query;
    const all = this.numbers(
      `SELECT id FROM newest_cell WHERE field = '@type'
         AND value IN (SELECT value FROM json_each(?))`,
      JSON.stringify(types),
    );
    const gone = this.numbers(
      `SELECT id FROM newest_cell WHERE field = '@deleted' AND value <= ?`,
      this.at,
    );
    const among = this.query.state === 'deleted' ? both : without;
    return among(this.of(all), this.of(gone));
  }

  private inState(state: EntryState): Numbers {
    const during = 'ends > ? AND starts <= ?';
    if (state !== 'not yet written') {
      const sql = `SELECT id FROM state_stretch WHERE state = ? AND ${during}`;
      return this.of(this.numbers(sql, state, this.at, this.at));
    }
    const any = `SELECT id FROM state_stretch WHERE ${during}`;
    const written = this.of(this.numbers(any, this.at, this.at));
    return without(new Uint8Array(this.most + 1).fill(1), written);
  }

  /** Those that hold searched words, the best fit first where `ranked`. */
  private searched(query: string, ranked: boolean): Iterable<number> {
    const found = this.numbers('SELECT rowid FROM newest_words WHERE newest_words MATCH ?', query);
    if (!ranked) return found;
    if (found.length <= MOST_RANKED)
      return this.numbers(
        `SELECT rowid FROM newest_words WHERE newest_words MATCH ?
           ORDER BY bm25(newest_words, 10, 1), rowid`,
        query,
      );
    const named = this.of(
      this.numbers(
        'SELECT rowid FROM newest_words WHERE newest_words MATCH ?',
        `name : (${query})`,
      ),
    );
    const all = this.of(found);
    const last = [...this.inOrder(SAVED, true)];
    const fits =
      (wanted: 0 | 1) =>
      (id: number): boolean =>
        all[id] === 1 && named[id] === wanted;
    return [...last.filter(fits(1)), ...last.filter(fits(0))];
  }

  /** Those of `among` of which a filter holds. */
  private holding(filter: ResolvedFilter, among: Numbers): Numbers {
    if (filter.kind !== 'group') return this.passing(filter, among);
    const { op, filters } = filter;
    const all = filters.map((f) => this.holding(f, among));
    if (op === 'all') return all.reduce(both, among);
    const any = all.reduce(either, new Uint8Array(this.most + 1));
    return op === 'any' ? any : without(among, any);
  }

  private passing(test: Test, among: Numbers): Numbers {
    const { column } = test;
    const { name } = column;
    switch (test.kind) {
      case 'blank': {
        const filled = this.filled(name, test.gone);
        return test.wanted ? without(among, filled) : filled;
      }
      case 'text':
        return this.withText(name, test);
      case 'anniversary': {
        const isDay = column.family === 'day';
        const day = isDay ? 'substr(value, -5)' : 'month_day(value, ?)';
        const sql = `SELECT id FROM newest_cell WHERE ${day} = ? AND field = ?`;
        const asked = isDay ? [test.day, name] : [test.zone, test.day, name];
        return this.of(this.numbers(sql, ...asked));
      }
      case 'range': {
        const sql = 'SELECT id FROM newest_cell WHERE field = ? AND value >= ? AND value < ?';
        const within = this.of(this.numbers(sql, name, test.from, test.to));
        return test.negated ? without(among, within) : within;
      }
      case 'compare': {
        const found = this.compared(column, test, among);
        return test.negated ? without(among, found) : found;
      }
      case 'identity':
      case 'through':
        throw new Error(`content is not asked ${test.kind}`);
      case 'members':
        return this.withMembers(name, test, among);
    }
  }

  private filled(name: string, gone: readonly string[]): Numbers {
    const sql = `SELECT id FROM newest_cell WHERE field = ?
      AND value NOT IN (SELECT value FROM json_each(?))`;
    return this.of(this.numbers(sql, name, JSON.stringify(gone)));
  }

  private withText(name: string, { op, value }: Extract<Test, { kind: 'text' }>): Numbers {
    return this.withTexts(PASSES[op], name, value);
  }

  /** Those whose text `t` in a column passes; the value compared with is `@value`. */
  private withTexts(passes: string, name: string, value: string | number): Numbers {
    const sql = `SELECT id FROM (SELECT id, texts ->> @path AS t FROM newest
      WHERE type IN (SELECT value FROM json_each(@types))) WHERE ${passes}`;
    const types = JSON.stringify(this.query.types);
    return this.of(this.numbers(sql, { path: `$."${name}"`, value, types }));
  }

  private compared(
    { name, family }: Column,
    { op, value }: Extract<Test, { kind: 'compare' }>,
    among: Numbers,
  ): Numbers {
    if (name === '@changed') return this.told(this.changed(), value, among);
    if (name === '@broken') return this.told(this.broken(), value, among);
    if (family === 'text') return this.withTexts('t = @value', name, value);
    const sql = `SELECT id FROM newest_cell WHERE field = ? AND value ${op} ?`;
    return this.of(this.numbers(sql, name, value));
  }

  private told(those: Numbers, wanted: unknown, among: Numbers): Numbers {
    return wanted === 1 ? those : without(among, those);
  }

  private withMembers(
    name: string,
    { op, keys }: Extract<Test, { kind: 'members' }>,
    among: Numbers,
  ): Numbers {
    const sql = `SELECT id FROM newest_cell WHERE field = ?
      AND value IN (SELECT value FROM json_each(?))`;
    const having = (wanted: readonly string[]): Numbers =>
      this.of(this.numbers(sql, name, JSON.stringify(wanted)));
    if (op === 'all') return keys.map(having).reduce(both, among);
    const any = having(keys.flat());
    return op === 'any' ? any : without(among, any);
  }

  /** Those whose newest revision never was public and is not planned to be. */
  private changed(): Numbers {
    if (this.at < settledInstant(this.connection))
      return either(this.inState('draft'), this.inState('live with newer draft'));
    const sql = `SELECT n.id FROM entry AS e JOIN newest AS n ON n.entry = e.id
      WHERE e.unpublished = 1`;
    return this.of(this.numbers(sql));
  }

  /** Those that refer to what is not live. */
  private broken(): Numbers {
    const sql = `
      WITH dead AS MATERIALIZED (SELECT target FROM
        (SELECT DISTINCT target FROM reference_edge WHERE target >= '0') AS t
        WHERE NOT EXISTS (SELECT 1 FROM live_interval AS l
          WHERE l.entry = t.target AND ${asOf('l')}))
      SELECT n.id FROM dead JOIN reference_edge AS r ON r.target = dead.target
        JOIN entry AS e ON e.id = r.entry AND e.newest = r.revision
        JOIN newest AS n ON n.entry = e.id
        WHERE r.field IN (SELECT value FROM json_each(?))`;
    const { at, query } = this;
    return this.of(this.numbers(sql, at, at, JSON.stringify(query.references)));
  }

  private ordered(found: Numbers): number[] {
    const { column, descending } = this.query.order!;
    const out: number[] = [];
    const left = Uint8Array.from(found);
    for (const id of this.inOrder(column, descending)) {
      if (left[id] !== 1) continue;
      left[id] = 0;
      out.push(id);
    }
    for (let id = 0; id < left.length; id++) if (left[id] === 1) out.push(id);
    return out;
  }

  private inOrder(
    { name, family, field }: Pick<Column, 'name' | 'family' | 'field'>,
    descending: boolean,
  ): Iterable<number> {
    if (family !== 'choice') {
      // Turned round as a whole, so that the index is read through from its end.
      const turn = descending ? 'DESC' : '';
      return this.numbers(
        `SELECT id FROM newest_cell WHERE field = ? ORDER BY value ${turn}, id ${turn}`,
        name,
      );
    }
    const options = (field?.options ?? []).map(({ id }) => id);
    const sql = 'SELECT id FROM newest_cell WHERE field = ? AND value = ? ORDER BY id';
    return (descending ? options.reverse() : options).flatMap((id) => [
      ...this.numbers(sql, name, id),
    ]);
  }

  private of(list: Iterable<number>): Numbers {
    return numbersOf(list, this.most);
  }

  /** The numbers that a statement gives; they are remembered until something is written. */
  private numbers(sql: string, ...params: unknown[]): Int32Array {
    const { connection } = this;
    return READ.get(connection, JSON.stringify([sql, ...params]), () => {
      // As one text: handing over a hundred thousand rows takes longer than finding them.
      const joined = `WITH found(number) AS (${sql}) SELECT group_concat(number) FROM found`;
      const text = statement<string | null>(connection, joined)
        .pluck()
        .get(...params);
      return numbersIn(text ?? '');
    });
  }
}
