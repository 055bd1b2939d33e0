import { describeSteps } from '@/core/design-edit/describe.ts';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { type Design, designSpec } from '@/core/design/spec.ts';
import type { Instant } from '@/core/time/interval.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { entryName } from './display.ts';
import type { SiteView } from './site-view.ts';

/** A release, past or planned, in words. */
export interface ReleaseLine {
  release: number;
  at: Instant;
  person: string;
  /** What it changes of the design, a sentence for each step. */
  sentences: string[];
  /** Names of the entries published with it. */
  drafts: string[];
  /** Whether it takes an earlier one back. */
  undoes: boolean;
}

type Row = {
  id: number;
  starts: Instant;
  author: string;
  spec: string;
  edits: string | null;
  published: string;
  undoes: number | null;
};

const COLUMNS = 'id, starts, author, spec, edits, published, undoes';

/** The releases that come after an instant, in their order. */
export function plannedReleases(
  view: SiteView,
  after: Instant,
  until: Instant | null = null,
): ReleaseLine[] {
  return statement<Row>(
    view.connection,
    `SELECT ${COLUMNS} FROM design_version WHERE starts > @after
       AND (@until IS NULL OR starts <= @until) ORDER BY starts, id LIMIT 100`,
  )
    .all({ after, until })
    .map((row) => releaseLine(view, row));
}

/** The last release by an instant that can be taken back; null where there is none. */
export function lastRelease(view: SiteView, at: Instant): ReleaseLine | null {
  const row = statement<Row>(
    view.connection,
    `SELECT ${COLUMNS} FROM design_version WHERE starts <= ? ORDER BY starts DESC, id DESC LIMIT 1`,
  ).get(at);
  return row && row.edits !== null ? releaseLine(view, row) : null;
}

function releaseLine(view: SiteView, row: Row): ReleaseLine {
  const design: Design = designSpec.parse(JSON.parse(row.spec));
  const edits = JSON.parse(row.edits ?? '[]') as DesignEdit[];
  const published = JSON.parse(row.published) as { entry: string }[];
  return {
    release: row.id,
    at: row.starts,
    person: personName(view.connection, row.author),
    sentences: edits.flatMap((edit) => describeSteps(design, edit)),
    drafts: published.map(({ entry }) => entryName(view, entry)),
    undoes: row.undoes !== null,
  };
}
