import type { Instant } from '@/core/time/interval.ts';
import type { Connection, Statement } from '../db/connection.ts';
import { type LanguageTables, languagesMade, tablesIn } from '../store/language-tables.ts';
import { statement } from '../store/statement.ts';

/** An entry with all that is stored of it, and of what was derived what is a fact by now. */
export interface EntryRows {
  id: string;
  /** Id of its type. */
  type: string;
  created: Instant;
  author: string;
  deleted: Instant | null;
  revisions: RevisionRow[];
  plans: PlanRow[];
  byHand: { path: string; starts: Instant; ends: Instant | null }[];
  live: LiveRow[];
  held: HeldRow[];
  refused: RefusalRow[];
  /** The same facts in further languages, by their ids. */
  further: { language: string; live: LiveRow[]; held: HeldRow[]; refused: RefusalRow[] }[];
}

/** A saved state. */
export interface RevisionRow {
  number: number;
  saved: Instant;
  author: string;
  values: string;
  name: string;
  /** '' for none. */
  note: string;
}

/** A publication or retirement that was asked for. */
export interface PlanRow {
  at: Instant;
  do: 'publish' | 'retire';
  revision: number | null;
  sequence: number;
  local: string | null;
  zone: string | null;
  person: string;
  language: string;
}

/** When a revision was public. */
export interface LiveRow {
  starts: Instant;
  ends: Instant | null;
  revision: number;
  shared: number;
  language: string;
}

/** Which path was held when. */
export interface HeldRow {
  path: string;
  base: string;
  role: 'current' | 'redirect';
  starts: Instant;
  ends: Instant | null;
  language: string;
}

/** What could not be had. */
export interface RefusalRow {
  at: Instant;
  code: string;
  message: string;
  fix: string;
  cancelled: 0 | 1;
  base: string | null;
  byHand: 0 | 1;
}

const ENTRIES = `SELECT id, type, created, author, deleted FROM entry WHERE purged IS NULL
  ORDER BY id`;
const OF_ENTRY = {
  revisions: `SELECT number, saved, author, "values", name, note FROM revision
    WHERE entry = @id ORDER BY number`,
  plans: `SELECT at, action AS "do", revision, sequence, local, zone, person, language
    FROM planned_change WHERE entry = @id ORDER BY at, sequence`,
  byHand: 'SELECT path, starts, ends FROM by_hand WHERE entry = @id ORDER BY id',
} as const;

/** Facts in a language, from its tables. */
const factsIn = ({
  live,
  address,
  refusal,
}: LanguageTables): Record<'live' | 'held' | 'refused', string> => ({
  live: `SELECT starts, CASE WHEN ends <= @until THEN ends END AS ends, revision,
      shared_revision AS shared, language
    FROM ${live} WHERE entry = @id AND starts <= @until ORDER BY starts, language`,
  held: `SELECT path, base, role, starts, CASE WHEN ends <= @until THEN ends END AS ends, language
    FROM ${address} WHERE entry = @id AND starts <= @until ORDER BY starts, path, language`,
  refused: `SELECT at, code, message, fix, cancelled, base, by_hand AS byHand
    FROM ${refusal} WHERE entry = @id AND at <= @until ORDER BY at`,
});

/** All entries by id, one after the other, with what was a fact at an instant. */
export function* entryRows(connection: Connection, until: Instant): Generator<EntryRows> {
  const prepared = (statements: object): [string, Statement][] =>
    Object.entries(statements).map(([name, sql]) => [name, statement(connection, String(sql))]);
  const all = prepared({ ...OF_ENTRY, ...factsIn(tablesIn(undefined)) });
  const further = languagesMade(connection).map((language) => ({
    language,
    facts: prepared(factsIn(tablesIn(language))),
  }));
  // A statement that is being read through cannot be asked anew meanwhile: it is prepared here.
  const entries = connection.driver.prepare<unknown[], Pick<EntryRows, 'id'>>(ENTRIES);
  for (const entry of entries.iterate()) {
    const bound = { id: entry.id, until };
    const read = (statements: [string, Statement][]): object =>
      Object.fromEntries(statements.map(([name, sql]) => [name, sql.all(bound)]));
    const elsewhere = further.map(({ language, facts }) => ({ language, ...read(facts) }));
    yield { ...entry, ...read(all), further: elsewhere } as unknown as EntryRows;
  }
}
