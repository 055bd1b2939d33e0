import { describeSteps } from '@/core/design-edit/describe.ts';
import type { DesignEdit } from '@/core/design-edit/edit.ts';
import { partAt, rootOf } from '@/core/design-edit/parts.ts';
import { partOf } from '@/core/design-edit/steps.ts';
import type { Design } from '@/core/design/spec.ts';
import type { Issue } from '@/core/issue.ts';
import type { Instant } from '@/core/time/interval.ts';
import { type Actor, SITE, permit } from '../permit.ts';
import { asOf } from '../store/as-of.ts';
import { type BenchEdit, openEdits } from '../store/bench.ts';
import { personName } from '../store/persons.ts';
import { statement } from '../store/statement.ts';
import { plannedReleases, lastRelease, type ReleaseLine } from './releases.ts';
import { pagesConcerned } from './concerned.ts';
import type { SiteView } from './site-view.ts';
import { unpublishedCount } from './today.ts';

/** An edit of the design that is not released yet. */
export interface EditLine {
  id: number;
  mine: boolean;
  person: string;
  made: Instant;
  /** What it changes, a sentence for each step. */
  sentences: string[];
  /** The screen it can be looked at on; null where there is none. */
  href: string | null;
  /** How many pages there are that may look otherwise. */
  pages: number;
  /** Why it does not apply to what is released now; empty where it does. */
  issues: Issue[];
}

/** An entry whose newest revision is public nowhere and not planned to be. */
export interface DraftLine {
  entry: string;
  revision: number;
  name: string;
  typeLabel: string;
  mine: boolean;
  person: string;
  saved: Instant;
  /** Where it stands now; null where it does not. */
  path: string | null;
  /** Whether an older revision is public. */
  live: boolean;
}

/** All that is unpublished, and what was and will be released. */
export interface BenchDetail {
  edits: EditLine[];
  drafts: DraftLine[];
  /** How many drafts there are, those not listed included. */
  draftsTotal: number;
  planned: ReleaseLine[];
  last: ReleaseLine | null;
  /** Whether whoever asks has edits to take back, and undone ones to do again. */
  canUndo: boolean;
  canRedo: boolean;
}

/** Everything on the bench as of an instant; null while no site is loaded. */
export function benchDetail(view: SiteView, actor: Actor, at: Instant): BenchDetail | null {
  permit(actor, 'read-unpublished', SITE);
  const working = view.working(at);
  if (!working) return null;
  const { folded, site } = working;
  const { connection } = view;
  const open = openEdits(connection);
  const issues = new Map(folded.stuck.map((s) => [s.id, s.issues]));
  const redo = statement(
    connection,
    `SELECT 1 FROM design_edit WHERE person = ? AND state = 'undone' AND undone IS NOT NULL LIMIT 1`,
  );
  return {
    edits: open.map((edit) => ({
      ...editLine(view, edit, actor),
      sentences: describeSteps(folded.design, edit.edit),
      href: hrefOf(folded.design, edit.edit),
      pages: pagesConcerned(view, site, edit.edit, at),
      issues: issues.get(edit.id) ?? [],
    })),
    drafts: draftLines(view, actor, at),
    draftsTotal: unpublishedCount(view),
    planned: plannedReleases(view, at),
    last: lastRelease(view, at),
    canUndo: open.some(({ person }) => person === actor.id),
    canRedo: redo.get(actor.id) !== undefined,
  };
}

function editLine(
  { connection }: SiteView,
  { id, person, made }: BenchEdit,
  actor: Actor,
): Pick<EditLine, 'id' | 'mine' | 'person' | 'made'> {
  return { id, made, mine: person === actor.id, person: personName(connection, person) };
}

const SCREENS: Record<string, string> = { types: 'types', listings: 'listings' };

/** The screen on which the part that an edit changes first is set. */
function hrefOf(design: Design, { steps }: DesignEdit): string | null {
  const root = rootOf(partOf(steps[0]!));
  if (root === 'site') return '/build/settings';
  const screen = SCREENS[root.split('/')[0]!];
  const key = partAt(design, root)?.key;
  return screen === undefined || key === undefined ? null : `/build/${screen}/${key}`;
}

/** What an edit on the bench says of a part, a sentence each: for the part's own screen. */
export function sentencesAbout(view: SiteView, root: string, at: Instant): string[] {
  const folded = view.working(at)?.folded;
  if (!folded) return [];
  return folded.applied
    .filter(({ edit }) => edit.steps.some((step) => rootOf(partOf(step)) === root))
    .flatMap(({ edit }) => describeSteps(folded.design, edit));
}

const MOST_DRAFTS = 200;

type DraftRow = {
  entry: string;
  type: string;
  revision: number;
  name: string;
  author: string;
  saved: number;
  path: string | null;
  live: number;
};

function draftLines(view: SiteView, actor: Actor, at: Instant): DraftLine[] {
  const rows = statement<DraftRow>(
    view.connection,
    `SELECT e.id AS entry, e.type, e.newest AS revision, r.name, r.author, r.saved,
       (SELECT path FROM address AS a WHERE a.entry = e.id AND a.role = 'current'
          AND ${asOf('a', '@at')}) AS path,
       EXISTS (SELECT 1 FROM live_interval AS l WHERE l.entry = e.id AND ${asOf('l', '@at')}) AS live
     FROM entry AS e JOIN revision AS r ON r.entry = e.id AND r.number = e.newest
     WHERE e.unpublished = 1 AND e.deleted IS NULL
     ORDER BY r.author = @me DESC, r.saved DESC, e.id LIMIT ${MOST_DRAFTS}`,
  ).all({ at, me: actor.id });
  const { types } = view.at(at)!.site;
  return rows.map(({ type, author, live, ...row }) => ({
    ...row,
    typeLabel: types.get(type)?.label ?? type,
    mine: author === actor.id,
    person: author === '' ? 'A loaded folder' : personName(view.connection, author),
    live: live === 1,
  }));
}
