import { type Design, designSpec } from '@/core/design/spec.ts';
import { type DesignEdit, applySteps, invertEdit } from '@/core/design-edit/edit.ts';
import { same } from '@/core/design-edit/properties.ts';
import { BEGINNING, type Instant } from '@/core/time/interval.ts';
import type { Connection } from '../db/connection.ts';
import { openEdits } from '../store/bench.ts';
import { statement } from '../store/statement.ts';
import type { SavedFile } from './saved-file.ts';
import { yamlText } from './yaml-text.ts';

/** A release as it is stored. */
export interface ReleaseRow {
  id: number;
  starts: Instant;
  spec: string;
  author: string;
  saved: Instant;
  edits: string | null;
  published: string;
  undoes: number | null;
}

/** All releases, past and planned, in the order in which they take hold. */
export function releaseRows(connection: Connection): ReleaseRow[] {
  return statement<ReleaseRow>(
    connection,
    `SELECT id, starts, spec, author, saved, edits, published, undoes
       FROM design_version ORDER BY starts, id`,
  ).all();
}

/** The design that a release gives. */
export function designOf({ spec }: ReleaseRow): Design {
  return designSpec.parse(JSON.parse(spec));
}

/** What a site's history is saved from. */
export interface History {
  releases: readonly ReleaseRow[];
  /** The instant of the last write. */
  until: Instant;
  /** What subjects and picks were, as the file has it. */
  content: object;
}

/** What was released when, by whom, and what stands on the bench. */
export function historyFiles(
  connection: Connection,
  { releases, until, content }: History,
): SavedFile[] {
  const [first, ...later] = releases;
  const people = statement<{ id: string; name: string }>(
    connection,
    'SELECT id, name FROM person ORDER BY id',
  ).all();
  const history = {
    until: iso(until),
    design: { number: first!.id, author: first!.author, saved: iso(first!.saved), ...from(first!) },
    people: Object.fromEntries(people.map(({ id, name }) => [id, name])),
    ...content,
  };
  const bench = openEdits(connection).map(({ person, made, edit }) => ({
    person,
    made: iso(made),
    steps: edit.steps,
  }));
  return [
    ...later.map((release, i) => releaseFile(release, releases[i]!, release.starts <= until)),
    ...(bench.length > 0 ? [{ path: 'bench.yaml', content: yamlText(bench) }] : []),
    // Written last: a folder with it was saved to the end.
    { path: 'history.yaml', content: yamlText(history) },
  ];
}

function from({ starts }: ReleaseRow): object {
  return starts === BEGINNING ? {} : { starts: iso(starts) };
}

function releaseFile(release: ReleaseRow, before: ReleaseRow, isPast: boolean): SavedFile {
  const { id, starts, author, saved, published, undoes } = release;
  const edits = release.edits === null ? null : (JSON.parse(release.edits) as DesignEdit[]);
  const news = JSON.parse(published) as object[];
  const leadsBack = edits !== null && (!isPast || isTakenBack(release, edits, before));
  return {
    path: `releases/${String(id).padStart(6, '0')}.yaml`,
    content: yamlText({
      starts: iso(starts),
      author,
      saved: iso(saved),
      ...(undoes === null ? {} : { undoes }),
      ...(news.length > 0 ? { published: news } : {}),
      ...(edits === null ? {} : { edits: edits.map(({ steps }) => steps) }),
      ...(leadsBack ? {} : { replaced: designOf(before) }),
    }),
  };
}

/** Whether the design before is found by taking a release's edits back. */
function isTakenBack(release: ReleaseRow, edits: DesignEdit[], before: ReleaseRow): boolean {
  let design = designOf(release);
  for (const edit of edits.toReversed()) {
    const done = applySteps(design, invertEdit(edit));
    if (!done.ok) return false;
    design = done.value.design;
  }
  return same(design, designOf(before));
}

/** An instant as the folder gives it. */
export function iso(at: Instant): string {
  return new Date(at).toISOString();
}
