import { applyPlans } from '@/core/publication/plans.ts';
import type { LiveInterval } from '@/core/publication/model.ts';
import type { Issue } from '@/core/issue.ts';
import type { Instant } from '@/core/time/interval.ts';
import type { Connection } from '../../db/connection.ts';
import type { EntryToLoad } from '../../files/to-load.ts';
import { writeFacts } from '../../store/derive-rows.ts';
import { languagesMade, makeTablesIn, tablesIn } from '../../store/language-tables.ts';
import { statement } from '../../store/statement.ts';

/**
 * Copies what was so before a site was saved. An entry that was put into the folder since has been
 * live as its plans say and gets an address when the site was saved, which gives such entries.
 */
export function insertFacts(
  connection: Connection,
  entries: readonly EntryToLoad[],
  language: string,
  until: Instant,
): string[] {
  const added: string[] = [];
  const write = writeFacts(connection, tablesIn(undefined));
  const further = furtherWriter(connection);
  for (const entry of entries) {
    const { facts } = entry;
    if (facts) {
      write(facts);
      for (const [id, own] of Object.entries(facts.further)) further(id)(own);
    } else {
      const live = liveByPlans(entry, language, until);
      write({ live, held: [], refused: [] });
      if (live.at(-1)?.to === null) added.push(entry.id);
    }
  }
  const published = '(SELECT min(starts) FROM live_interval WHERE entry = entry.id)';
  statement(connection, `UPDATE entry SET published = ${published}`).run();
  return added;
}

/** Writes facts of further languages, whose tables are made when they are met. */
function furtherWriter(connection: Connection): (language: string) => WriteFacts {
  const known = new Map<string, WriteFacts>();
  return (language) => {
    let write = known.get(language);
    if (write) return write;
    if (!languagesMade(connection).includes(language)) makeTablesIn(connection, language);
    known.set(language, (write = writeFacts(connection, tablesIn(language))));
    return write;
  };
}

type WriteFacts = ReturnType<typeof writeFacts>;

/** When an entry was live by its plans, up to an instant. */
function liveByPlans(
  { id, plans, revisions }: EntryToLoad,
  language: string,
  until: Instant,
): LiveInterval[] {
  const live: LiveInterval[] = [];
  let now: number | null = null;
  for (const at of new Set(plans.flatMap((plan) => (plan.at <= until ? [plan.at] : [])))) {
    const together = plans.filter((plan) => plan.at === at);
    const next = applyPlans(now, together, revisions);
    if (next === now) continue;
    const last = live.at(-1);
    if (last?.to === null) last.to = at;
    if (next !== null)
      live.push({ entry: id, language, from: at, to: null, revision: next, sharedRevision: next });
    now = next;
  }
  return live;
}

/** Paths that two entries are said to have held at once. */
export function doublyHeld(
  connection: Connection,
  entries: ReadonlyMap<string, EntryToLoad>,
): Issue[] {
  const rows = statement<{ path: string; entry: string; other: string }>(
    connection,
    `SELECT a.path, a.entry, b.entry AS other FROM address AS a
       JOIN address AS b ON b.path = a.path AND b.entry > a.entry AND b.role = 'current'
         AND b.starts < coalesce(a.ends, 9e15) AND a.starts < coalesce(b.ends, 9e15)
       WHERE a.role = 'current' LIMIT 100`,
  ).all();
  return rows.map(({ path, entry, other }) => {
    const { raw } = entries.get(entry)!;
    return {
      code: 'wrong-fact',
      path: raw.file,
      line: raw.lineOf(['entry', 'held']),
      message: `It cannot have held ${path}: "${other}" held it then.`,
      fix: 'Mend entry.held of one of them.',
    };
  });
}

/** Marks whose newest revision never was public and is not planned to be. */
export function markPublished(connection: Connection): void {
  statement(
    connection,
    `UPDATE entry SET unpublished = NOT EXISTS (SELECT 1 FROM live_interval AS l
       WHERE l.entry = entry.id AND entry.newest IN (l.revision, l.shared_revision))`,
  ).run();
}
