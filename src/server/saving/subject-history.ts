import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { statement } from '../store/statement.ts';
import { iso } from './history-files.ts';

interface Row {
  set: string;
  key: string;
  from: Instant;
  to: Instant | null;
  name: string;
  slug: string;
  description: string;
  picture: string | null;
  parent: string | null;
  merged: string | null;
  languages: string | null;
  author: string | null;
}

/**
 * What history.yaml says of subjects: those that stood otherwise before, those of sets that are not
 * among the given ones, by their ids, and in which order they stand among the others; and since
 * when the others have stood as they stand.
 */
export function subjectHistory(connection: Connection, sets: readonly string[]): object {
  const rows = statement<Row>(
    connection,
    `SELECT "set", key, starts AS "from", ends AS "to", name, slug, description, picture, parent,
       merged, languages, author FROM subject ORDER BY "set", position, key, starts`,
  ).all();
  const isHere = ({ set, to }: Row): boolean => to === null && sets.includes(set);
  const since = rows
    .filter((row) => isHere(row) && row.from !== BEGINNING)
    .map(({ set, key, from, author }) => lean({ set, key, from: iso(from), author }));
  const before = rows.filter((row) => !isHere(row));
  const order = [...new Set(before.map(({ set }) => set))].map((set) => {
    const keys = rows.filter((row) => row.set === set).map(({ key }) => key);
    return { set, keys: [...new Set(keys)] };
  });
  return {
    ...(before.length > 0 ? { subjects: before.map(lineOf), subjectOrder: order } : {}),
    ...(since.length > 0 ? { subjectsSince: since } : {}),
  };
}

function lineOf({ from, to, languages, ...row }: Row): object {
  return lean({
    ...row,
    languages: languages === null ? null : (JSON.parse(languages) as object),
    from: from === BEGINNING ? null : iso(from),
    to: to === null ? null : iso(to),
  });
}

function lean(line: object): object {
  return Object.fromEntries(Object.entries(line).filter(([, value]) => value !== null));
}
