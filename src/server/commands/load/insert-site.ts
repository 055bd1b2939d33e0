import { type Instant, BEGINNING } from '@/core/time/interval.ts';
import type { Design } from '@/core/design/spec.ts';
import type { Connection } from '../../db/connection.ts';
import { entry } from '../../db/schema.ts';
import { brought, chosenColumns, savedFilter, source } from '../../db/schema-desk.ts';
import type { SavedHistory } from '../../files/read-history.ts';
import type { ReadMedia } from '../../files/read-media.ts';
import type { SiteToLoad } from '../../files/read-site.ts';
import type { Actor } from '../../permit.ts';
import { storeRelease } from '../../store/design-store.ts';
import {
  dropLanguageTables,
  languagesMade,
  makeTablesIn,
  tablesIn,
} from '../../store/language-tables.ts';
import { mediaWriter } from '../../store/media.ts';
import { addPick } from '../../store/picks.ts';
import { notePerson } from '../../store/persons.ts';
import { revisionWriter } from '../../store/revision-writer.ts';
import { asFilled, putStarter } from '../../store/starters.ts';
import { statement } from '../../store/statement.ts';
import { subjectRow } from '../../store/subject-rows.ts';
import { storedValues } from '../../store/stored-values.ts';
import { nameOf, subjectPlaces } from './subject-places.ts';

const CONTENT = [
  'bulk_change',
  'source',
  'brought',
  'starter',
  'saved_filter',
  'chosen_columns',
  'state_stretch',
  'newest_cell',
  'newest',
  'address',
  'live_interval',
  'planned_change',
  'by_hand',
  'reference_edge',
  'refusal',
  'pick',
  'revision',
  'entry',
  'subject',
  'media',
  'design_version',
  'design_edit',
];

/** Takes everything of the site out: content, designs, bench and derived tables. */
export function clear(connection: Connection): void {
  const { driver } = connection;
  dropLanguageTables(connection);
  for (const table of CONTENT) driver.exec(`DELETE FROM ${table}`);
  const names = driver
    .prepare<unknown[], string>(
      `SELECT name FROM sqlite_master WHERE type = 'table' AND (name LIKE 'index\\_%' ESCAPE '\\' OR name LIKE 'member\\_%' ESCAPE '\\')`,
    )
    .pluck()
    .all();
  for (const name of names) driver.exec(`DROP TABLE "${name.replaceAll('"', '""')}"`);
  driver.exec(`DELETE FROM meta WHERE key LIKE 'index:%' OR key LIKE 'newest:%'`);
}

/** Writes what a folder brought; nothing is derived. */
export function insertAll(
  connection: Connection,
  site: SiteToLoad,
  { actor, at }: { actor: Actor; at: Instant },
): void {
  if (site.history) insertHistory(connection, site.design, site.history);
  else
    storeRelease(connection, {
      design: site.design,
      starts: BEGINNING,
      author: actor.id,
      saved: at,
    });
  insertSubjects(connection, site);
  insertMedia(connection, site.media);
  insertEntries(connection, site);
  insertStarters(connection, site);
  site.picks.forEach((pick, position) => addPick(connection, { ...pick, position }));
}

function insertHistory(connection: Connection, design: Design, history: SavedHistory): void {
  const { people, releases, bench } = history;
  insertPurged(connection, history, design);
  insertDesk(connection, history);
  insertSources(connection, history);
  for (const [id, name] of people) notePerson(connection, { id, name });
  for (const { edits, published, ...release } of releases)
    storeRelease(connection, {
      ...release,
      edits: edits && JSON.stringify(edits),
      published: JSON.stringify(published),
    });
  const add = statement(
    connection,
    `INSERT INTO design_edit (person, made, edit, state) VALUES (?, ?, ?, 'open')`,
  );
  for (const { person, made, edit } of bench) add.run(person, made, JSON.stringify(edit));
}

/** Entries of which nothing is left, and the addresses that lead nowhere by them. */
function insertPurged(
  connection: Connection,
  { purged }: SavedHistory,
  { site: { language }, languages }: Design,
): void {
  const { tables } = connection;
  const ids = new Map(languages.map((further) => [further.language, further.id]));
  for (const { id, type, created, purged: at, deleted = at, held } of purged) {
    tables.insert(entry).values({ id, type, created, author: '', deleted, purged: at }).run();
    for (const { from: starts, to: ends, path, language: own = language } of held) {
      const further = ids.get(own);
      if (further !== undefined && !languagesMade(connection).includes(further))
        makeTablesIn(connection, further);
      statement(
        connection,
        `INSERT INTO ${tablesIn(further).address} (entry, role, language, path, base, starts, ends)
           VALUES (@id, 'purged', @own, @path, @path, @starts, @ends)`,
      ).run({ id, own, path, starts, ends });
    }
  }
}

/** What people have set up of their tables. */
function insertDesk({ tables }: Connection, { desk: { filters, columns } }: SavedHistory): void {
  for (const { filters: kept, ...about } of filters)
    tables
      .insert(savedFilter)
      .values({ ...about, filters: JSON.stringify(kept) })
      .run();
  for (const { columns: names, ...whose } of columns)
    tables
      .insert(chosenColumns)
      .values({ ...whose, columns: JSON.stringify(names) })
      .run();
}

/** Where content was brought in from, with which record became which entry. */
function insertSources({ tables }: Connection, { sources }: SavedHistory): void {
  for (const { records, mapping, ...about } of sources) {
    tables
      .insert(source)
      .values({ ...about, mapping: JSON.stringify(mapping) })
      .run();
    for (const record of records)
      tables
        .insert(brought)
        .values({ ...record, source: about.id })
        .run();
  }
}

function insertSubjects(connection: Connection, site: SiteToLoad): void {
  const { design, history } = site;
  const setIds = new Map(design.subjectSets.map(({ key, id }) => [key, id]));
  const since = new Map(history?.subjectsSince.map((s) => [nameOf(s), s]));
  const here = site.subjects.map((subject) => {
    const own = { ...subject, set: setIds.get(subject.set) ?? subject.set, to: null };
    const { from = BEGINNING, author = null } = since.get(nameOf(own)) ?? {};
    return { ...own, from, author };
  });
  const insert = statement(
    connection,
    `INSERT INTO subject ("set", key, starts, ends, name, slug, description, picture, parent,
       merged, languages, position, author)
     VALUES (@set, @key, @from, @to, @name, @slug, @description, @picture, @parent,
       @merged, @languages, @position, @author)`,
  );
  const all = [...here, ...(history?.subjects ?? [])];
  const places = subjectPlaces(all, history?.subjectOrder ?? []);
  for (const subject of all)
    insert.run({ ...subjectRow(subject), position: places.get(nameOf(subject)) });
}

/** Ids of subject sets by the keys that they have or had. */
function setIdsEver(design: Design, history: SavedHistory | null): Map<string, string> {
  const before = (history?.releases ?? []).map((release) => release.design);
  return new Map(
    [...before, design].flatMap(({ subjectSets }) =>
      subjectSets.map(({ key, id }) => [key, id] as const),
    ),
  );
}

function insertMedia(connection: Connection, all: ReadMedia[]): void {
  const put = mediaWriter(connection);
  for (const { from, source: _, ...medium } of all)
    put({ ...medium, starts: from, ends: medium.to });
}

/** What new entries can begin with. */
function insertStarters(connection: Connection, { starters, design, history }: SiteToLoad): void {
  const { language } = design.site;
  for (const { id, type: given, name, values, stored, author, saved } of starters) {
    const type = history?.types.get(given.id) ?? given;
    const filled = asFilled({ ...stored, ...storedValues(type, values, language) });
    putStarter(connection, { id, type: type.id, name, filled, author, saved });
  }
}

function insertEntries(connection: Connection, { entries, design, history }: SiteToLoad): void {
  const { language } = design.site;
  const insert = statement(
    connection,
    'INSERT INTO entry (id, type, created, author, deleted) VALUES (?, ?, ?, ?, ?)',
  );
  for (const e of entries) insert.run(e.id, e.type.id, e.created, e.author, e.deleted);
  const writeRevision = revisionWriter(connection, design.site, setIdsEver(design, history));
  const plan = statement(
    connection,
    `INSERT INTO planned_change
       (entry, language, at, sequence, action, revision, local, zone, person)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
  );
  const byHand = statement(
    connection,
    'INSERT INTO by_hand (entry, path, starts, ends) VALUES (?, ?, ?, ?)',
  );
  for (const e of entries) {
    // With the fields that the type had or will have: what they refer to counts at their time.
    const type = history?.types.get(e.type.id) ?? e.type;
    for (const revision of e.revisions) writeRevision(e.id, type, revision);
    for (const p of e.plans) {
      const who = p.person ?? e.author;
      const spoken = p.language ?? language;
      plan.run(e.id, spoken, p.at, p.sequence, p.do, p.revision, p.local, p.zone, who);
    }
    for (const h of e.byHand) byHand.run(e.id, h.path, h.from, h.to);
  }
}
